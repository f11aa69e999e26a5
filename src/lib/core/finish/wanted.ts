import type { ToFinish } from './toFinish';

/** How many pieces are wanted, if that is said. */
export const wantedOf = ({ scheme }: Pick<ToFinish, 'scheme'>): { wanted?: number } =>
  'run' in scheme && scheme.run?.pieces ? { wanted: scheme.run.pieces } : {};
