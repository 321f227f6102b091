import { defineConfig } from 'vite'

/** The program of the page that is taken along: one file, readable, which Halterion.Formats puts into the page. */
export default defineConfig({
  publicDir: false,
  build: {
    outDir: process.env.PAGE_OUT ?? '../src/Halterion.Formats',
    emptyOutDir: false,
    minify: false,
    lib: {
      entry: 'src/leading/takeAlong/page.ts',
      formats: ['iife'],
      name: 'halterionPage',
      fileName: () => 'lead-page.js',
    },
  },
})
