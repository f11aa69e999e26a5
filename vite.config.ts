import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [sveltekit()],
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 2000 },
  ssr: { external: ['sharp', 'pg', 'pg-boss', 'pino', '@tus/server', 'yauzl'] },
  test: {
    include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
    testTimeout: 180_000,
    hookTimeout: 60_000,
    maxWorkers: 2,
  },
});
