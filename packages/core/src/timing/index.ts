export { addRetimeKey, stretchRetime } from './change-retime.js';
export { shownAt, sourceFrame } from './retiming.js';
