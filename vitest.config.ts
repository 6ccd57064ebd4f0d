import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/test/**/*.test.ts'], setupFiles: ['core/test/seed.ts'], testTimeout: 60_000 } },
      { test: { name: 'contract', include: ['contract/test/**/*.test.ts'], setupFiles: ['core/test/seed.ts'] } },
      {
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          globalSetup: ['server/test/cluster.ts'],
          fileParallelism: false,
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
      { test: { name: 'web', include: ['web/test/**/*.test.{ts,tsx}'], setupFiles: ['core/test/seed.ts'] } },
    ],
  },
})
