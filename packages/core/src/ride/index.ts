export { newAttachment } from './new-attachment.js';
export { chassisOf, couplingLength, hasWheelbase, riderLength, type ModelBox } from './chassis.js';
export { suggestBankWindow } from './suggest-window.js';
export { GRAVITY } from '../math/gravity.js';
export { contactPoints, ownAxes, ownPosition, type OwnAxes } from './contact-points.js';
export { keyedWayOf, type KeyedWay } from './keyed-way.js';
