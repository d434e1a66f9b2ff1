import { takeModelWithFacts } from '@fleet-rail/core/formats';
import { serveJobs } from '../threads/serve-jobs.js';
import type { ModelJob, ModelAnswer } from './model-job.js';

serveJobs<ModelJob, ModelAnswer>(async function* ({ files }) {
  const { facts, fileName, glb } = await takeModelWithFacts(files);
  yield { facts, fileName, converted: glb };
});
