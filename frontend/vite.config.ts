import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import babel from '@rolldown/plugin-babel'
import react, { reactCompilerPreset } from '@vitejs/plugin-react'
import type { Plugin } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'
import { PAPER } from './src/shared/theme/paper.ts'

/** Writes what browsers fetch compressed beside it, so that no house does it again and again. */
function precompressed(): Plugin {
  return {
    name: 'sandboa-precompressed',
    apply: 'build',
    enforce: 'post',
    closeBundle: {
      order: 'post',
      sequential: true,
      handler() {
        const assets = join(OUT, 'assets')
        for (const name of readdirSync(assets).filter((name) => /\.(js|css)$/.test(name))) {
          const file = join(assets, name)
          const bytes = readFileSync(file)
          writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }))
          writeFileSync(`${file}.br`, brotliCompressSync(bytes))
        }
      },
    },
  }
}

/** The wheel ships the built front end from inside the Python package. */
const OUT = fileURLToPath(new URL('../src/sandboa/web/static', import.meta.url))

/**
 * What is drawn at every tap, or in long lists: React's compiler has these components draw only
 * what changed. Forms are left out: their library tells of changes in ways it does not see.
 */
const DRAWN_OFTEN =
  /\/src\/(eggs|features\/(hatch|round|today|wall)|shared\/(many|rounds|shells|ui\/Ch))\/?.*\.tsx$/

export default defineConfig({
  plugins: [
    react(),
    babel({ include: DRAWN_OFTEN, presets: [reactCompilerPreset()] }),
    precompressed(),
    VitePWA({
      registerType: 'autoUpdate',
      // Registered by the application itself, so that the page needs no inline script.
      injectRegister: null,
      manifest: {
        name: 'Sandboa',
        short_name: 'Sandboa',
        description: 'From pairing to first meals: eggs, boxes, cabinets',
        // What tells systems that it is the same application, wherever it begins.
        id: '/',
        start_url: '/',
        scope: '/',
        display: 'standalone',
        background_color: PAPER.bench,
        theme_color: PAPER.bench,
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png', purpose: 'any' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
          {
            src: '/icon-maskable-512.png',
            sizes: '512x512',
            type: 'image/png',
            purpose: 'maskable',
          },
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' },
        ],
        share_target: {
          action: '/share',
          method: 'POST',
          enctype: 'multipart/form-data',
          params: { files: [{ name: 'photos', accept: ['image/*'] }] },
        },
        shortcuts: [
          { name: 'Round', url: '/round' },
          { name: 'Lay day', url: '/lay-day' },
          { name: 'Today', url: '/' },
        ].map((place) => ({
          ...place,
          icons: [{ src: '/icon-192.png', sizes: '192x192', type: 'image/png' }],
        })),
      },
      workbox: {
        importScripts: ['share-worker.js', 'push-worker.js'],
        globPatterns: ['**/*.{js,css,html,woff2,svg}'],
        // Beside the worker, wherever that is.
        navigateFallback: 'index.html',
        navigateFallbackDenylist: [/\/api\//, /\/calendar\//],
        // What is read for a round: from the house where it answers, else as it was last read.
        runtimeCaching: [
          {
            urlPattern: ({ url, request }) =>
              request.method === 'GET' &&
              /\/api\/(round|rules|today|acts|alarms|clutches\/[^/]+(\/eggs\/\d+)?)$/.test(
                url.pathname,
              ),
            handler: 'NetworkFirst',
            options: { cacheName: 'read last', networkTimeoutSeconds: 10 },
          },
          {
            // A session of practice goes on where the house is out of reach.
            urlPattern: ({ url, request }) =>
              request.method === 'GET' && /\/api\/practice(\/looks\/\d+)?$/.test(url.pathname),
            handler: 'NetworkFirst',
            options: { cacheName: 'read last', networkTimeoutSeconds: 10 },
          },
          {
            urlPattern: ({ url }) => /\/api\/practice\/.*\.webp$/.test(url.pathname),
            handler: 'CacheFirst',
            options: { cacheName: 'practice', expiration: { maxEntries: 60 } },
          },
          {
            urlPattern: ({ url }) => /\/api\/photos\/[0-9a-f]+\.jpg$/.test(url.pathname),
            handler: 'CacheFirst',
            options: { cacheName: 'pictures', expiration: { maxEntries: 400 } },
          },
        ],
      },
    }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  // Scripts and styles name each other from where they are; the house tells the page its path.
  experimental: {
    renderBuiltUrl: (file, { hostType }) => (hostType === 'html' ? `/${file}` : { relative: true }),
  },
  build: {
    outDir: OUT,
    emptyOutDir: true,
    chunkSizeWarningLimit: 1200,
    rolldownOptions: {
      output: {
        // What several places share is named after none of them.
        chunkFileNames: ({ name }) =>
          `assets/${name.startsWith('shared') ? 'shared' : name}-[hash].js`,
        codeSplitting: {
          // A slow computer asks for a dozen files sooner than for sixty small ones.
          groups: [
            { name: 'frame', tags: ['$initial'], priority: 1 },
            {
              name: 'shared',
              minShareCount: 2,
              entriesAware: true,
              entriesAwareMergeThreshold: 8_000,
            },
          ],
        },
      },
    },
  },
  server: {
    proxy: { '/api': 'http://127.0.0.1:8350', '/calendar': 'http://127.0.0.1:8350' },
  },
  test: {
    include: ['src/**/*.test.ts', 'src/**/*.test.tsx'],
    // Modules are loaded once for all files: Chakra alone takes seconds.
    isolate: false,
  },
})
