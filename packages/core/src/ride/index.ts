export { newHitch } from './new-hitch.js';
export { GRAVITY } from './bank.js';
export { contactPoints, ownAxes, ownPlace, type OwnAxes } from './contact-points.js';
