import { availableParallelism } from 'node:os'
import { defineConfig } from 'vitest/config'

/** What has no world of its own runs on every core, its modules read once a worker: most of the time went into reading them again. */
const plain = {
  setupFiles: ['core/test/seed.ts'],
  isolate: false,
  maxWorkers: availableParallelism(),
  // Whole, a property takes as long as it takes.
  testTimeout: process.env.GEOLABE_SEED === 'new' ? 3_600_000 : 60_000,
}

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/test/**/*.test.ts'], ...plain } },
      { test: { name: 'contract', include: ['contract/test/**/*.test.ts'], ...plain } },
      { test: { name: 'web', include: ['web/test/**/*.test.{ts,tsx}'], ...plain } },
      {
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          globalSetup: ['server/test/cluster.ts'],
          fileParallelism: false,
          // After the others: what is proved here has its few seconds on the clock.
          sequence: { groupOrder: 1 },
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
})
