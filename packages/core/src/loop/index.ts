export { SEAM_UNITS, isOpen, seamOf, seamReport, type SeamGap } from './seam.js';
export { canClose, closingsOf, type Closing } from './closings.js';
export { cycleFrames, seamPartner } from './partners.js';
export { relay, type Relay } from './relay.js';
