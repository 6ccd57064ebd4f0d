import { constants } from 'node:zlib'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    // The app itself opens without a network; what it asks the records for is never answered from here.
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: 'script-defer',
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        maximumFileSizeToCacheInBytes: 3 * 1024 * 1024,
      },
      manifest: {
        name: 'Geolabe',
        short_name: 'Geolabe',
        description: 'From walking up to a machine to a proven, recorded lift.',
        theme_color: '#14233a',
        background_color: '#f5f1e8',
        display: 'standalone',
        start_url: '/',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
    }),
    // Packed once when it is built, not at every request.
    compression({
      include: /\.(js|css|html|svg|webmanifest|json)$/,
      algorithms: [
        defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } }),
        defineAlgorithm('gzip', { level: 9 }),
      ],
    }),
  ],
  worker: { format: 'es' },
  build: { target: 'es2022', manifest: true, chunkSizeWarningLimit: 700, assetsInlineLimit: 0 },
})
