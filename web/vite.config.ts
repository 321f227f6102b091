import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  plugins: [
    react(),
    // Keeps the screens in the browser, so that a reload without the server brings back the class under way.
    VitePWA({
      injectRegister: null,
      // It can be installed from the browser, on the machine itself.
      manifest: {
        name: 'Halterion',
        short_name: 'Halterion',
        description: 'Timed circuits for group fitness classes: built, led, remembered.',
        start_url: '/',
        display: 'standalone',
        background_color: '#efede6',
        theme_color: '#26333a',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' },
        ],
      },
      filename: 'sw.js',
      workbox: {
        inlineWorkboxRuntime: true,
        sourcemap: false,
        globPatterns: ['**/*.{js,css,html,svg,png,woff2,webmanifest}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        // The figures of a class, which show nothing private: so that a reload without the server still shows what to do.
        runtimeCaching: [
          {
            urlPattern: /\/api\/wall\/(digits|[^/]+\/(figures|film\?.*))$/,
            handler: 'NetworkFirst',
            options: { cacheName: 'figures', expiration: { maxEntries: 400 } },
          },
        ],
        cleanupOutdatedCaches: true,
        clientsClaim: true,
        skipWaiting: true,
      },
    }),
  ],
  build: { outDir: '../src/Halterion.Web/wwwroot', emptyOutDir: true, reportCompressedSize: true },
  server: { proxy: { '/api': 'http://127.0.0.1:5080' } },
})
