// Bundles what runs outside the web server (worker, fenced processes) to build/tools/, so that each starts at once.
import { build } from 'esbuild';

await build({
  entryPoints: ['src/lib/server/worker/main.ts', 'src/lib/server/fenced/*.ts'],
  outdir: 'build/tools',
  outbase: 'src/lib/server',
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
  external: ['sharp', 'pg', 'pg-boss', 'pino', '@tus/server', 'yauzl', '@embedpdf/pdfium', 'fontkit'],
  banner: {
    js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);",
  },
  logLevel: 'warning',
});
