import { writeDecimalsWith } from '../core/measure/decimalSign';

/** The words of a language by those in English; `{0}`, `{1}` stand for what is put into a sentence. */
export type Catalogue = Readonly<Record<string, string>>;

/** Languages that the interface speaks, by their codes (ISO 639-1), as each calls itself. */
export const LANGUAGES = { en: 'English', de: 'Deutsch' } as const;
export type Language = keyof typeof LANGUAGES;
export const isLanguage = (code: unknown): code is Language =>
  typeof code === 'string' && Object.hasOwn(LANGUAGES, code);

/** The cookie that says which was chosen. */
export const LANGUAGE_COOKIE = 'language';

/** What each writes before decimals. */
const DECIMAL: Record<Language, '.' | ','> = { en: '.', de: ',' };

/** What is spoken: a language, and its words unless it is English. */
export interface Speech {
  language: Language;
  catalogue?: Catalogue;
}

const ENGLISH: Speech = { language: 'en' };
let speech: () => Speech = () => ENGLISH;
let muted = 0;

/** Says where to find out what is spoken: in a browser that never changes, on a server each request has its own. */
export function speak(as: () => Speech): void {
  speech = as;
  writeDecimalsWith(() => DECIMAL[spokenNow().language]);
}
/** What is spoken now. */
export const spokenNow = (): Speech => (muted ? ENGLISH : speech());

/** Words as they are whatever is spoken, as in the names of files. */
export function inEnglish<T>(say: () => T): T {
  muted++;
  try {
    return say();
  } finally {
    muted--;
  }
}

/** A text in the language that is spoken; in English where that has no words for it. */
export const translated = (text: string): string => spokenNow().catalogue?.[text] ?? text;

/** The key of a sentence: its words with `{0}`, `{1}` where something is put in. */
export const keyOf = (parts: readonly string[]): string =>
  parts.reduce((key, part, n) => `${key}{${n - 1}}${part}`);

/** A sentence in the language that is spoken, with what is put into it: t`page ${3} of ${8}`. */
export function t(parts: TemplateStringsArray, ...given: unknown[]): string {
  const words = spokenNow().catalogue?.[keyOf(parts)];
  if (words === undefined) return parts.reduce((text, part, n) => `${text}${String(given[n - 1])}${part}`);
  return words.replace(/\{(\d+)\}/g, (_, n: string) => String(given[Number(n)]));
}

/** Values in word records that are no words: ids of what stands elsewhere. */
const IDS: ReadonlySet<string | symbol> = new Set(['group']);
/** All records of words, so that a test can look whether a language has words for all of them. */
export const RECORDS: object[] = [];
const seen = new WeakMap<object, object>();

/** A record of words, at any depth, each in the language that is spoken when it is asked for. */
export function spoken<T extends object>(record: T): T {
  RECORDS.push(record);
  return asked(record);
}
function asked<T extends object>(record: T): T {
  const known = seen.get(record);
  if (known) return known as T;
  const proxy = new Proxy(record, {
    get(from, key, receiver) {
      const value: unknown = Reflect.get(from, key, receiver);
      if (typeof value === 'string') return IDS.has(key) ? value : translated(value);
      return value !== null && typeof value === 'object' ? asked(value) : value;
    },
  });
  seen.set(record, proxy);
  return proxy;
}
