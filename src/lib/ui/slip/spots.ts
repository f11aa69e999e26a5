import type { Bench } from '../bench.svelte';

/** The spot inks that the files of a job have, by name. */
export const spotsOf = (bench: Bench): string[] => [
  ...new Set(
    Object.values(bench.surveys).flatMap(({ inks }) =>
      inks.flatMap(({ name, kind }) => (kind === 'spot' ? [name] : [])),
    ),
  ),
];
