/** Body of a request for pictures of 16 × 16, each through its own camera. */
export function smallJob(pictures: number): object {
  const burnIn = { frame: false, timecode: false, name: false, board: false, safe: false };
  const size = { width: 16, height: 16, times: 1 };
  return {
    fileName: 'Far.zip',
    shot: { format: 'fleet-rail-shot', version: 2, name: 'Far' },
    wish: {
      frames: 'range',
      every: 1,
      ...size,
      file: 'png',
      quality: 0.5,
      rounds: 1,
      burnIn,
      helpers: false,
      clear: false,
    },
    pictures: Array.from({ length: pictures }, (_, i) => ({ frame: i + 1, eyes: [{ rider: 'c' }] })),
    theme: 'day',
  };
}
