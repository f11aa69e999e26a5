import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { expect, test } from 'vitest';

const SRC = resolve(import.meta.dirname, '..', '..');
/** Which rooms each room may import from, besides itself; `packages` where it may use any package. */
const MAY: Record<string, { rooms: string[]; packages: RegExp }> = {
  'lib/core': { rooms: [], packages: /^zod$/ },
  'lib/words': { rooms: ['lib/core'], packages: /^$/ },
  'lib/wire': { rooms: ['lib/core', 'lib/words'], packages: /^$/ },
  'lib/pdf': { rooms: ['lib/core', 'lib/raster'], packages: /^(@cantoo\/pdf-lib|fontkit|node:.*|zod)$/ },
  'lib/raster': { rooms: ['lib/core'], packages: /^(@embedpdf\/pdfium.*|node:.*|sharp)$/ },
  'lib/server': {
    rooms: ['lib/core', 'lib/words', 'lib/wire', 'lib/pdf', 'lib/raster'],
    // The scanner, a stand-in, draws the demo's booklet.
    packages:
      /^(@tus\/server|client-zip|pg|pg-boss|pino|tsx\/esm\/api|yauzl|zod|sharp|node:.*|\.\.\/demo\/ruleBook)$/,
  },
  'lib/ui': { rooms: ['lib/core', 'lib/words', 'lib/wire', 'lib/raster'], packages: /.*/ },
};

/** `import … from 'x'`, `export … from 'x'`, `import 'x'` at a line's beginning, and `import('x')` anywhere. */
const IMPORT =
  /^\s*(?:import|export)\s[^'"`;]*?from\s*'([^']+)'|^\s*import\s*'([^']+)'|\bimport\('([^']+)'\)/gm;

const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' }).filter(
  (file) => /\.(ts|svelte)$/.test(file) && !file.endsWith('.test.ts'),
);
const roomOf = (path: string) => Object.keys(MAY).find((room) => path.startsWith(`${room}/`));

test.each(Object.keys(MAY))('%s imports only what its place allows', (room) => {
  const inRoom = files.filter((file) => roomOf(file) === room);
  expect(inRoom.length).toBeGreaterThan(0);
  const wrong = inRoom.flatMap((file) =>
    [...readFileSync(join(SRC, file), 'utf8').matchAll(IMPORT)].flatMap(([, ...targets]) => {
      const target = targets.find(Boolean);
      const path = target!.startsWith('.')
        ? relative(SRC, resolve(SRC, dirname(file), target!))
        : target!.replace(/^\$lib\//, 'lib/');
      const to = roomOf(`${path}/`);
      const fine = to ? to === room || MAY[room]!.rooms.includes(to) : MAY[room]!.packages.test(path);
      return fine ? [] : [`${file} → ${target}`];
    }),
  );
  expect(wrong).toEqual([]);
});
