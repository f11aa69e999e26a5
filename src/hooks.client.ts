import type { ClientInit } from '@sveltejs/kit';
import { isLanguage, speak, type Catalogue } from '$lib/words/language';

const CATALOGUES = import.meta.glob<Catalogue>('./lib/words/languages/*.json', { import: 'default' });

/** The page came in a language; the words of that one are fetched before anything is said. */
export const init: ClientInit = async () => {
  const language = document.documentElement.lang;
  const catalogue = await CATALOGUES[`./lib/words/languages/${language}.json`]?.();
  if (catalogue && isLanguage(language)) speak(() => ({ language, catalogue }));
};
