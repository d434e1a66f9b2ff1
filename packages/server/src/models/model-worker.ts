import { placedModel, takeModelWithFacts } from '@fleet-rail/core/formats';
import { serveJobs } from '../threads/serve-jobs.js';
import type { ModelJob, ModelAnswer } from './model-job.js';

serveJobs<ModelJob, ModelAnswer>(async function* ({ files, placing }) {
  const { facts, fileName, glb } =
    placing === null ? await takeModelWithFacts(files) : await placedModel(files[0], placing);
  yield { facts, fileName, converted: glb };
});
