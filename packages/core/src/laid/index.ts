export { MOST_PIECES, laidSpots, laidStretch, type LaidStretch } from './laid-spots.js';
export { PIECE, bendAlong, layPieces, type LaidPieces } from './lay-pieces.js';
export { sweepProfile, type SweptMesh } from './sweep-profile.js';
export { groundItself, groundWithLaid, isLaidGround, joined, laidCurve, sweptOf } from './laid-ground.js';
export { READY_PROFILES, type ReadyProfile } from './ready-profiles.js';
export { laidThings, modelsLaid, type LaidThing } from './laid-things.js';
export { profileOfPath } from './profile-of-path.js';
