type Sign = '.' | ',';
let sign = (): Sign => '.';

/** Says where to find out which sign stands before decimals: in some languages it is a comma. */
export function writeDecimalsWith(of: () => Sign): void {
  sign = of;
}

/** A number as text, with the decimal sign of who reads it. */
export const writeNumber = (text: string | number): string => String(text).replace('.', sign());

const THOUSANDS: Record<Sign, RegExp> = {
  '.': /^[1-9]\d{0,2}(?:,\d{3})+(?!\d)/,
  ',': /^[1-9]\d{0,2}(?:\.\d{3})+(?!\d)/,
};
/**
 * What a text begins with, where the sign in it may stand before thousands or before decimals: `1,000` is a thousand
 * to some and one to others, but not to who writes decimals with that very sign.
 */
export const thousandsIn = (text: string): string | undefined => THOUSANDS[sign()].exec(text)?.[0];
