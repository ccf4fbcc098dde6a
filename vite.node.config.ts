// Builds what runs under Node.js: the server, its worker threads, the demo starter and the command-line tools.
import { defineConfig } from 'vite'
import { aliases } from './vite.aliases.ts'

export default defineConfig({
  resolve: { alias: aliases },
  build: {
    ssr: true,
    target: 'node20',
    outDir: process.env['OUT_DIR'] ?? 'dist/node',
    emptyOutDir: true,
    minify: false,
    rollupOptions: {
      input: process.env['ONLY']
        ? { only: process.env['ONLY'] }
        : {
            demo: 'demo/main.ts',
            'demo-server': 'demo/serve.ts',
            server: 'server/main.ts',
            'frame-worker': 'server/workers/frame-worker.ts',
            'media-runner': 'media/runner/main.ts',
            'encode-demo': 'demo/encode/main.ts',
            'encode-assembly': 'demo/encode/assembly.ts',
            'make-mattes': 'demo/encode/mattes.ts',
            pale: 'cli/main.ts',
            bench: 'tests/bench/main.ts',
            'teach-guess': 'tests/guess/teach.ts',
            screens: 'tests/screens/main.ts',
            'make-seed': 'tests/support/make-seed.ts',
          },
      // Chunks lie beside the entries, so that start.ts finds the worker beside itself.
      output: { entryFileNames: '[name].js', chunkFileNames: '[name]-[hash].js', format: 'es' },
    },
  },
})
