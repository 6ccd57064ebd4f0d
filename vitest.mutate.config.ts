import { defineConfig } from 'vitest/config'

/** What tests the core without a database, for `npm run mutate`. */
export default defineConfig({
  test: {
    include: ['core/test/**/*.test.ts', 'contract/test/**/*.test.ts'],
    setupFiles: ['core/test/seed.ts'],
    testTimeout: 120_000,
  },
})
