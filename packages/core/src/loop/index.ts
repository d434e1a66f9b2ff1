export { SEAM_UNITS, isOpen, seamReport, type SeamGap } from './seam.js';
export { canClose, closingsOf, type Closing } from './closings.js';
export { cycleFrames } from './partners.js';
export { relay, type Relay } from './relay.js';
