export { POSE } from './pose.js';
export type { PoseAt } from './ride-path.js';
export { axisVector, axesToTravel } from './axes.js';
export { newHitch } from './new-hitch.js';
export { offsetAt } from './keyed-offset.js';
export { placeOn } from './place-on.js';
export { headingDeg, pitchDeg } from './heading.js';
export { GRAVITY } from './bank.js';
export { cameraAt, compileFocal, fieldOfView, focalAt, pictureHalves } from './camera.js';
export { displaceFrame, displacedTwice } from './displace.js';
export {
  chooseFirstOfCourse,
  joinCourses,
  openCourse,
  reverseCourse,
  splitCourse,
  type JoinEnds,
} from './courses.js';
export { addRetimeKey, stretchRetime } from './change-retime.js';
export { shownAt, sourceFrame } from './retiming.js';
export { contactPoints, ownAxes, ownPlace, type OwnAxes } from './contact-points.js';
