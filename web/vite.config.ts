import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  plugins: [
    react(),
    // Keeps the screens in the browser, so that a reload without the server brings back the class under way.
    VitePWA({
      injectRegister: null,
      manifest: false,
      filename: 'sw.js',
      workbox: {
        inlineWorkboxRuntime: true,
        sourcemap: false,
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
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
