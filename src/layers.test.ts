import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { describe, expect, test } from 'vitest';

const ROOT = resolve(import.meta.dirname, '..');

/** Which rooms each room may import from, besides itself, and which packages. */
const ROOMS: Record<string, { rooms: string[]; packages: RegExp }> = {
  'src/lib/core': { rooms: [], packages: /^zod$/ },
  'src/lib/words': { rooms: ['core'], packages: /^$/ },
  'src/lib/wire': { rooms: ['core', 'words'], packages: /^$/ },
  'src/lib/pdf': { rooms: ['core', 'raster'], packages: /^(@cantoo\/pdf-lib|fontkit|node:.*|zod)$/ },
  'src/lib/raster': { rooms: ['core'], packages: /^(@embedpdf\/pdfium.*|node:.*|sharp|tesseract\.js)$/ },
  'src/lib/make': {
    rooms: ['core', 'words', 'wire', 'pdf', 'raster', 'standins'],
    packages: /^(node:.*|client-zip|sharp|yauzl)$/,
  },
  'src/lib/standins': {
    rooms: ['core', 'pdf', 'raster'],
    packages: /^(@cantoo\/pdf-lib|fontkit|sharp|node:.*)$/,
  },
  'src/lib/server': {
    rooms: ['core', 'words', 'wire', 'pdf', 'raster', 'make', 'standins'],
    packages: /^(@tus\/server|client-zip|marked|pg|pg-boss|pino|tsx\/esm\/api|yauzl|zod|sharp|node:.*)$/,
  },
  'src/lib/ui': { rooms: ['core', 'words', 'wire', 'raster'], packages: /.*/ },
  'src/cli': { rooms: ['core', 'words', 'pdf', 'raster', 'make'], packages: /^(zod|node:.*)$/ },
  'src/routes': {
    rooms: ['core', 'words', 'wire', 'ui', 'server'],
    packages: /^(svelte|\$app\/.*|@sveltejs\/kit|@fontsource.*|@lucide\/svelte\/.*|zod|node:.*|\.\/\$types)$/,
  },
  demo: {
    rooms: ['core', 'words', 'pdf', 'raster', 'make', 'standins', 'server'],
    packages: /^(@cantoo\/pdf-lib|sharp|pg|node:.*)$/,
  },
  bench: {
    rooms: ['core', 'pdf', 'raster', 'make', 'server', 'standins', 'tests', 'demo', 'e2e', 'scripts'],
    packages: /.*/,
  },
  tests: { rooms: ['core', 'words', 'pdf', 'raster', 'make', 'server', 'standins', 'demo'], packages: /.*/ },
  e2e: { rooms: ['core', 'tests', 'demo', 'scripts'], packages: /.*/ },
};

/** The layers of rooms from the bottom up: each imports only what stands below it, or beside it. */
const LAYERS = {
  'src/lib/pdf': ['objects', 'raw', 'content', 'read', 'write'],
  'src/lib/core': [
    'entries',
    'unknown',
    'kinds',
    'measure',
    'paper',
    'ink',
    'model',
    'fold',
    'pages',
    'numbers',
    'select',
    'surface',
    'sheets',
    'finish',
    'handover',
    'docket',
    'checks',
  ],
};

const rooms = Object.keys(ROOMS);
const nameOf = (room: string): string => room.split('/').at(-1)!;
const roomOf = (path: string): string | undefined => rooms.find((room) => path.startsWith(`${room}/`));

const files = rooms.flatMap((room) =>
  readdirSync(join(ROOT, room), { recursive: true, encoding: 'utf8' })
    .map((file) => join(room, file))
    .filter((file) => /\.(ts|svelte)$/.test(file) && !file.endsWith('.test.ts')),
);

interface Import {
  from: string;
  /** A file of ours, else the name of a package. */
  to: string;
  types: boolean;
}
/** `import … from 'x'`, `export … from 'x'`, `import 'x'` at a line's beginning, and `import('x')` anywhere. */
const IMPORT =
  /^\s*(?:import|export)\s+([^'"`;]*?)from\s*'([^']+)'|^\s*import\s*'([^']+)'|\bimport\('([^']+)'\)/gm;
const onlyTypes = (what: string): boolean =>
  what.startsWith('type ') ||
  (what.startsWith('{') &&
    what
      .replace(/[{}]/g, '')
      .split(',')
      .every((each) => !each.trim() || each.trim().startsWith('type ')));

function importsOf(from: string): Import[] {
  return [...readFileSync(join(ROOT, from), 'utf8').matchAll(IMPORT)].map(([, what = '', ...targets]) => {
    const target = targets.find(Boolean)!.replace(/^\$lib\//, `${relative(dirname(from), 'src/lib')}/`);
    const types = onlyTypes(what.trim());
    if (!target.startsWith('.')) return { from, to: target, types };
    const path = relative(ROOT, resolve(ROOT, dirname(from), target));
    const file = ['', '.ts', '/index.ts'].map((end) => path + end).find((each) => isFile(join(ROOT, each)));
    return { from, to: file ?? path, types };
  });
}
const isFile = (path: string): boolean => existsSync(path) && statSync(path).isFile();
const imports = files.flatMap(importsOf);

test.each(rooms)('%s imports only what its place allows', (room) => {
  const mine = imports.filter(({ from }) => roomOf(from) === room);
  expect(mine.length).toBeGreaterThan(0);
  const { rooms: may, packages } = ROOMS[room]!;
  const wrong = mine.filter(({ to }) => {
    if (to.startsWith('scripts/')) return !may.includes('scripts');
    const other = roomOf(to);
    if (other) return other !== room && !may.includes(nameOf(other));
    return to.includes('/') && isFile(join(ROOT, to)) ? false : !packages.test(to);
  });
  expect(wrong.map(({ from, to }) => `${from} → ${to}`)).toEqual([]);
});

test.each(Object.entries(LAYERS))('%s is in layers: no arrow points up', (room, layers) => {
  const layerOf = (path: string): number =>
    layers.indexOf(/^\w+/.exec(path.slice(room.length + 1))?.[0] ?? '');
  const within = imports.filter(({ from, to }) => roomOf(from) === room && roomOf(to) === room);
  expect(within.length).toBeGreaterThan(10 * layers.length);
  expect(
    [...new Set(within.flatMap(({ from, to }) => [from, to]))].filter((file) => layerOf(file) < 0),
  ).toEqual([]);
  const up = within.filter(({ from, to }) => layerOf(to) > layerOf(from));
  expect(up.map(({ from, to }) => `${from} → ${to}`)).toEqual([]);
});

/** The circles of a graph of imports: files that reach each other (Tarjan 1972, strongly connected components). */
function circles(arrows: readonly Import[]): string[][] {
  const next = new Map<string, string[]>();
  for (const { from, to } of arrows) next.set(from, [...(next.get(from) ?? []), to]);
  const [found, low, open] = [new Map<string, number>(), new Map<string, number>(), new Set<string>()];
  const [stack, all]: [string[], string[][]] = [[], []];
  const visit = (file: string): void => {
    found.set(file, found.size);
    low.set(file, found.get(file)!);
    stack.push(file);
    open.add(file);
    for (const to of next.get(file) ?? []) {
      if (!found.has(to)) visit(to);
      if (open.has(to)) low.set(file, Math.min(low.get(file)!, low.get(to)!));
    }
    if (low.get(file) !== found.get(file)) return;
    const circle = stack.splice(stack.indexOf(file));
    for (const each of circle) open.delete(each);
    if (circle.length > 1) all.push(circle);
  };
  for (const file of next.keys()) if (!found.has(file)) visit(file);
  return all;
}

describe('no file imports itself by way of others', () => {
  test('at run time', () => expect(circles(imports.filter(({ types }) => !types))).toEqual([]));
  test('nor by its types', () => expect(circles(imports)).toEqual([]));
});
