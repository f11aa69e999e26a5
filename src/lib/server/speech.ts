import { AsyncLocalStorage } from 'node:async_hooks';
import { isLanguage, speak, type Catalogue, type Language } from '../words/language';
import de from '../words/languages/de.json';

const CATALOGUES: Partial<Record<Language, Catalogue>> = { de };
const spoken = new AsyncLocalStorage<Language>();
speak(() => {
  const language = spoken.getStore() ?? 'en';
  const catalogue = CATALOGUES[language];
  return { language, ...(catalogue ? { catalogue } : {}) };
});

/** Runs `work` with all that it says in a language. */
export const speakIn = <T>(language: Language, work: () => T): T => spoken.run(language, work);

/** The language that was chosen; else the first one spoken here that a browser asks for (RFC 9110, 12.5.4). */
export function languageOf(chosen: string | undefined, accepted: string | null): Language {
  if (isLanguage(chosen)) return chosen;
  const asked = (accepted ?? '')
    .split(',')
    .map((each) => {
      const [tag = '', quality] = each.trim().split(/\s*;\s*q=/);
      return {
        code: tag.slice(0, 2).toLowerCase(),
        quality: quality === undefined ? 1 : Number(quality) || 0,
      };
    })
    .filter(({ quality }) => quality > 0)
    .sort((a, b) => b.quality - a.quality);
  return asked.map(({ code }) => code).find(isLanguage) ?? 'en';
}
