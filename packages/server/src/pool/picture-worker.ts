import { serveJobs } from '../threads/serve-jobs.js';
import { problemOfPng, type PictureSize } from './check-png.js';

/** A picture to be checked against a size. */
export interface PictureCheck {
  readonly bytes: Uint8Array;
  readonly size: PictureSize | null;
}

serveJobs<PictureCheck, { problem: string | null }>(async function* ({ bytes, size }) {
  yield { problem: problemOfPng(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), size) };
});
