import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    environment: 'happy-dom',
    setupFiles: ['tests/network.ts'],
    include: ['tests/**/*.test.ts', 'tests/**/*.test.tsx'],
    reporters: process.env.REPORT ? ['default', ['json', { outputFile: process.env.REPORT }]] : ['default'],
    // Long enough for a busy machine: nothing here waits for anything.
    testTimeout: 60_000,
    // Nobody is reached from a test: what a test needs of the network it says.
    unstubGlobals: true,
    restoreMocks: true,
  },
})
