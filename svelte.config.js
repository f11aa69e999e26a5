import adapter from '@sveltejs/adapter-node';
import { compress } from './scripts/lib/compress.mjs';

const node = adapter({ out: 'build' });

/** @type {import('@sveltejs/kit').Config} */
export default {
  kit: {
    adapter: { ...node, adapt: (builder) => node.adapt({ ...builder, compress }) },
    csrf: { trustedOrigins: [] },
    csp: {
      mode: 'auto',
      directives: {
        'default-src': ['self'],
        // The renderer is WebAssembly; nothing else is compiled at run time.
        'script-src': ['self', 'wasm-unsafe-eval'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'blob:', 'data:'],
        'worker-src': ['self', 'blob:'],
        'connect-src': ['self'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
      },
    },
  },
};
