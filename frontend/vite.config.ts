import { fileURLToPath } from 'node:url'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: {
    // The wheel ships the built front end from inside the Python package.
    outDir: '../src/sandboa/web/static',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1200,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8350' } },
  test: {
    include: ['src/**/*.test.ts', 'src/**/*.test.tsx'],
    // Modules are loaded once for all files: Chakra alone takes seconds.
    isolate: false,
  },
})
