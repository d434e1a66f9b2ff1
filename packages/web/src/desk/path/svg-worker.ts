import { readSvg } from '@fleet-rail/core/svg';
import { expose } from 'comlink';

export type SvgReader = typeof readSvg;

expose(readSvg);
