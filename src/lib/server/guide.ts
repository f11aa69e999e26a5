import { Marked } from 'marked';
import type { Language } from '../words/language';

const TEXTS = import.meta.glob<string>('/docs/guide/**/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const FILES = import.meta.glob<string>(['/docs/screenshots/*.png', '/docs/*.schema.json'], {
  query: '?url',
  import: 'default',
  eager: true,
});
const FIRST = 'README';

/** The pages of the guide by their names; `README` is its first. */
export const GUIDE_PAGES: readonly string[] = Object.keys(TEXTS)
  .map((path) => path.replace('/docs/guide/', '').replace(/\.md$/, ''))
  .filter((name) => !name.includes('/'));

/** A page of the guide as HTML, in English where a language has none; undefined where the guide has no such page. */
export interface GuidePage {
  page: string;
  title: string;
  html: string;
}

/** Finds a page of the guide in a language: its links lead to the other pages, its pictures are those that are shipped. */
export function guidePage(language: Language, page = FIRST): GuidePage | undefined {
  const text = TEXTS[`/docs/guide/${language}/${page}.md`] ?? TEXTS[`/docs/guide/${page}.md`];
  if (text === undefined || page.includes('/')) return undefined;
  const marked = new Marked({
    walkTokens(token) {
      if (token.type === 'image' || token.type === 'link') token.href = leadsTo(token.href as string);
    },
    renderer: {
      heading({ tokens, depth, text: title }) {
        return `<h${depth} id="${anchorOf(title)}">${this.parser.parseInline(tokens)}</h${depth}>\n`;
      },
    },
  });
  const html = marked.parse(text, { async: false });
  return { page, title: /^# (.*)$/m.exec(text)?.[1] ?? page, html };
}

/** Where a link of the guide's files leads on the server. */
function leadsTo(href: string): string {
  const [, name, anchor = ''] = /^([\w-]+)\.md(#.*)?$/.exec(href) ?? [];
  if (name !== undefined) return `/guide${name === FIRST ? '' : `/${name}`}${anchor}`;
  const file = Object.keys(FILES).find((path) => path.endsWith(href.replace(/^(\.\.\/)+/, '/')));
  return file ? FILES[file]! : href;
}

/** The anchor of a heading, as those who show such files elsewhere make it. */
const anchorOf = (title: string): string => title.toLowerCase().replaceAll(' ', '-');
