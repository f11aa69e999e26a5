import type { CHECKS, Finding } from '../../core/checks';
import type { Size } from '../../core/measure/box';
import type { Unit } from '../../core/measure/unit';
import type { CoverPart } from '../../core/model/page';

type Kinds = (typeof CHECKS)[number];
type TypesOf<Kind extends Kinds['kind']> = NonNullable<Extract<Kinds, { kind: Kind }>['types']>;
/** What is found under a code. */
export type FindingWith<Code extends Finding['code'], Each = Finding> = Each extends { code: infer Codes }
  ? Code extends Codes
    ? Each
    : never
  : never;

export interface Said {
  /** What is wrong, in a few words. */
  title: string;
  /** What it will do on paper, and what to do. */
  text: string;
}

/** What the words for a finding are made with. */
export interface Saying {
  /** The job's unit. */
  unit: Unit;
  /** The pages concerned: `1 page`, `3 pages`. */
  pages: string;
  size(size: Size): string;
  /** `3 pages have`, or of which part of the cover it is said. */
  there(part: CoverPart | undefined): string;
}

/** The words of one family of checks: for each finding, and for the button of each mend. */
export interface CheckWords<Kind extends Kinds['kind']> {
  found: {
    [Code in TypesOf<Kind>['found']['code']]: (finding: FindingWith<Code>, saying: Saying) => Said;
  };
  mends: { [Code in TypesOf<Kind>['mends']]: (data: Readonly<Record<string, string | number>>) => string };
}
