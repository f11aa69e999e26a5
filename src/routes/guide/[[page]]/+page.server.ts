import { error } from '@sveltejs/kit';
import { Marked } from 'marked';

const PAGES = import.meta.glob<string>('/docs/guide/*.md', { query: '?raw', import: 'default', eager: true });
const PICTURES = import.meta.glob<string>('/docs/screenshots/*.png', {
  query: '?url',
  import: 'default',
  eager: true,
});

/** A page of the guide as HTML: its links lead to the others, its pictures are those that are shipped. */
export function load({ params }: { params: { page?: string } }) {
  const page = params.page ?? 'README';
  const text = PAGES[`/docs/guide/${page}.md`];
  if (text === undefined) error(404, 'There is no such page in the guide.');
  const marked = new Marked({
    walkTokens(token) {
      if (token.type === 'image')
        token.href = PICTURES[`/docs/screenshots/${fileOf(token.href)}`] ?? token.href;
      else if (token.type === 'link' && /^[\w-]+\.md$/.test(token.href))
        token.href = `/guide/${token.href.replace(/^README\.md$|\.md$/, '')}`;
    },
  });
  const html = marked.parse(text, { async: false });
  return { page, title: /^# (.*)$/m.exec(text)?.[1] ?? 'Guide', html };
}

const fileOf = (path: string): string => path.split('/').at(-1)!;
