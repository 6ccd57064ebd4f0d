import { defineConfig } from 'vitest/config'

/** The core's own tests alone, for `npm run mutate`. */
export default defineConfig({
  test: {
    include: ['core/test/**/*.test.ts', 'contract/test/**/*.test.ts'],
    setupFiles: ['core/test/seed.ts'],
    testTimeout: 120_000,
  },
})
