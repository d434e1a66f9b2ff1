export { POSE, type PoseAt } from './pose.js';
export { axisVector, axesToTravel } from './axes.js';
export { offsetAt } from './keyed-offset.js';
export { placeOn } from './place-on.js';
export { headingDeg, pitchDeg } from './heading.js';
export { cameraAt, compileFocal, fieldOfView, focalAt, pictureHalves } from './camera.js';
export { displaceFrame, displacedTwice } from './displace.js';
