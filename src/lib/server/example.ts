import { emptyDocket } from '../core/docket/docket';
import { receive } from './intakes';
import { createJob } from './jobs';
import { enqueue } from './queue';

/** A small job to look at and to try things on: a booklet of the railway. Returns its id. */
export async function openExample(): Promise<string> {
  const { drawRuleBook } = await import('../standins/ruleBook');
  const job = await createJob(emptyDocket('Rule book 1931'));
  const bytes = await drawRuleBook();
  const coming = (async function* () {
    yield bytes;
  })();
  const { id } = await receive(job, 'rule-book-1931.pdf', { at: 'end' }, { bytes: coming });
  enqueue('survey', id);
  return job;
}
