import type { Docket, Output } from '../core/docket/docket';

/** The name of an output's file: the job's title, without what file systems refuse, and the kind of output. */
export const outputFileName = (docket: Docket, output: Output): string =>
  `${docket.title.replace(/[^\p{L}\p{N} ._-]+/gu, '_')} ${output.kind}.pdf`;
