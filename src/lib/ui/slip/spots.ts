import { inksOf } from '../../core/numbers/jobInks';
import type { Bench } from '../bench.svelte';

/** The spot inks of a job by name, as they are called at the end of its docket. */
export const spotsOf = (bench: Bench): string[] =>
  inksOf(bench.base.list, bench.surveys, bench.docket).flatMap(({ name, kind }) =>
    kind === 'spot' ? [name] : [],
  );
