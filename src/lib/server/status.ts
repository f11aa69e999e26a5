import type { JobStatus } from '../wire/told';
import { openIntakes } from './intakes';
import { readJob } from './jobs';
import { measuringOf } from './measures';
import { listOutputs } from './outputs';

/**
 * What moves while somebody looks on. The revision is read last, so that it has whatever ended before, and what goes on still
 * is told as such: read first, a file that comes in just then would be told by neither, and nobody would ask again. Throws
 * Problem 404.
 */
export async function statusOf(jobId: string): Promise<JobStatus> {
  const outputs = await listOutputs(jobId);
  const intakes = await openIntakes(jobId);
  const measuring = await measuringOf(jobId);
  const { revision } = await readJob(jobId);
  return { revision, intakes, measuring, outputs };
}
