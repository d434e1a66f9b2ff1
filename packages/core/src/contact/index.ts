export { Ground, type GroundMesh } from './ground.js';
export { trackByDistance, trackByFrame, type Band, type GroundTrack } from './ground-track.js';
