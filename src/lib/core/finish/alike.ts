const HUNDREDTHS = 100;

/** A key that things have in common whose lengths differ by less than a hundredth of a point. */
export const alikeKey = (value: unknown): string =>
  JSON.stringify(value, (_, each: unknown) =>
    typeof each === 'number' ? Math.round(each * HUNDREDTHS) : each,
  );
