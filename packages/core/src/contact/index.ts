export { GroundSurface, type GroundMesh } from './ground-surface.js';
export { trackByDistance, trackByFrame, type Band, type GroundTrack } from './ground-track.js';
