export { POSE, type PoseAt } from './pose.js';
export { axisVector, axesToTravel } from './axes.js';
export { offsetAt } from './keyed-offset.js';
export { pointOn } from './point-on.js';
export { headingDeg, pitchDeg } from './heading.js';
export { cameraAt, compileFocal, fieldOfView, focalAt, pictureHalves } from './camera.js';
export { displaceFrame, displacedTwice } from './displace.js';
export { anglesOf, offsetRotation } from './offset-rotation.js';
export { positionIn, rotationIn } from './pose.js';
