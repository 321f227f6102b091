import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react()],
  build: { outDir: '../src/Halterion.Web/wwwroot', emptyOutDir: true, reportCompressedSize: true },
  server: { proxy: { '/api': 'http://127.0.0.1:5080' } },
})
