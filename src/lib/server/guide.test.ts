import { describe, expect, it } from 'vitest';
import { LANGUAGES, type Language } from '../words/language';
import { GUIDE_PAGES, guidePage } from './guide';

describe.each(Object.keys(LANGUAGES) as Language[])('the guide in %s', (language) => {
  const pages = GUIDE_PAGES.map((name) => guidePage(language, name)!);
  const all = (html: string, of: RegExp): string[] => [...html.matchAll(of)].map(([, found]) => found!);
  const hrefs = (html: string) => all(html, /<a href="([^"]*)"/g);

  it('has every page, with links and pictures that are there', () => {
    expect(pages.length).toBeGreaterThanOrEqual(8);
    let followed = 0;
    for (const { html, page } of pages) {
      for (const href of [...hrefs(html), ...all(html, /<img src="([^"]*)"/g)]) {
        const [path, anchor] = decodeURI(href).split('#');
        if (path!.startsWith('/guide')) {
          const target = guidePage(language, path!.slice('/guide/'.length) || undefined);
          expect(target, `${page}: ${href}`).toBeDefined();
          if (anchor) expect(all(target!.html, /<h\d id="([^"]*)"/g)).toContain(anchor);
        } else expect(href, page).toMatch(/^\/(docs|_app)\//);
        followed++;
      }
    }
    expect(followed).toBeGreaterThan(30);
  });

  it('says in each what the English one says: as many headings, points, rows and pictures', () => {
    const shape = ({ html }: { html: string }) =>
      ['h1', 'h2', 'li', 'tr', 'img', 'p', 'a', 'code'].map(
        (tag) => html.split(new RegExp(`<${tag}[ >]`)).length - 1,
      );
    for (const page of pages) expect(shape(page), page.page).toEqual(shape(guidePage('en', page.page)!));
  });
});

it('has no page outside of it', () => {
  for (const name of ['nothing', 'de/README', '../README']) expect(guidePage('en', name)).toBeUndefined();
});
