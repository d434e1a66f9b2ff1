import type { Drive } from '../../document/shot-pace.js';
import { GRAVITY } from '../../geometry/math/gravity.js';

/** The sideways acceleration a drive allows in bends, in g. */
export const gripOf = ({ sideways }: Pick<Drive, 'sideways'>): number => sideways / GRAVITY;
