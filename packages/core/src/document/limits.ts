/** The largest document that is accepted; beyond it every refusal names the limit. */
export const LIMITS = {
  paths: 200,
  pointsPerPath: 5_000,
  marksPerPath: 500,
  models: 500,
  riders: 1_000,
  keysPerPace: 10_000,
  partsPerRider: 200,
  frames: 100_000,
  cuts: 1_000,
  takesPerRider: 20,
  retimes: 100,
  cues: 500,
  waivers: 1_000,
  views: 100,
  laid: 200,
  profilePoints: 500,
  otherPieces: 20,
  bursts: 200,
  /** Of one rider over a whole shot. */
  particles: 50_000,
  textLength: 200,
  /** Metres from the origin: keeps single-precision files meaningful. */
  coordinate: 1e7,
} as const;
