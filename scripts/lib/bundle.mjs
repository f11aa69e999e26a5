// Bundles what runs outside the web server (worker, fenced processes, command line) to build/tools/, so that each starts at once.
import { readdirSync } from 'node:fs';
import { build } from 'esbuild';

const SERVER = 'src/lib/server';
const programsIn = (directory) =>
  readdirSync(`${SERVER}/${directory}`)
    .filter((name) => !name.endsWith('.test.ts'))
    .map((name) => `${SERVER}/${directory}/${name}`);

await build({
  entryPoints: [`${SERVER}/worker/main.ts`, ...programsIn('fenced'), ...programsIn('threads')],
  outdir: 'build/tools',
  outbase: SERVER,
  bundle: true,
  minifySyntax: true,
  minifyWhitespace: true,
  splitting: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  outExtension: { '.js': '.mjs' },
  mainFields: ['module', 'main'],
  conditions: ['import'],
  external: [
    'sharp',
    'pg',
    'pg-boss',
    'pino',
    '@tus/server',
    'yauzl',
    '@embedpdf/pdfium',
    'fontkit',
    'tesseract.js',
  ],
  banner: {
    js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);",
  },
  logLevel: 'warning',
});
