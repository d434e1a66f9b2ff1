export { SEAM_TOLERANCE, SEAM_UNITS, isOpen, seamReport, type SeamChannel, type SeamGap } from './seam.js';
export { CLOSING_TOLERANCE, canClose, closingsOf, type Closing } from './closings.js';
export { cycleFrames } from './partners.js';
export { relay, type Relay } from './relay.js';
