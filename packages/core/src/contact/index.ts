export { GroundSurface, floorAt, type GroundMesh } from './ground-surface.js';
export { trackByDistance, trackByFrame, trackNodes, type Band, type GroundTrack } from './ground-track.js';
