import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [sveltekit()],
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 2000 },
  ssr: { external: ['sharp', 'pg', 'pg-boss', 'pino', '@tus/server', 'yauzl'] },
  test: {
    include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
    testTimeout: 600_000,
    hookTimeout: 180_000,
    // A machine that is busy, or shared, takes seconds for what is done in moments.
    expect: { poll: { timeout: 30_000 } },
    maxWorkers: 2,
  },
});
