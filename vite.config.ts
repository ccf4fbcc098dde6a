// Builds the web application.
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { aliases } from './vite.aliases.ts'

export default defineConfig({
  root: 'web',
  plugins: [vue()],
  resolve: { alias: aliases },
  worker: { format: 'es' },
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
  },
})
