import { gltfIo, isBvh, readModel } from '@fleet-rail/core/formats';
import { serveJobs } from '../threads/serve-jobs.js';
import type { ModelJob, ModelAnswer } from './model-job.js';

serveJobs<ModelJob, ModelAnswer>(async function* ({ bytes, fileName }) {
  const { document, facts } = await readModel(bytes, fileName);
  // A figure's motion is kept as the model it is read as, so that all that shows and writes models can.
  const converted = isBvh(bytes, fileName) ? await gltfIo().writeBinary(document) : null;
  yield { facts, converted };
});
