import { statfsSync } from 'node:fs'
import { defineConfig } from '@playwright/test'

/** Each worker has a world of its own: its server, its cluster, its machines. */
const worlds: Record<string, string>[] = JSON.parse(process.env.GEOLABE_WORLDS ?? '[{}]')
Object.assign(process.env, worlds[Number(process.env.TEST_PARALLEL_INDEX ?? 0)])

/** Where there is room for them in memory, the browser's pictures go through that, not through a disk that others write to as well. */
function roomInMemory(): boolean {
  try {
    const { bavail, bsize } = statfsSync('/dev/shm')
    return bavail * bsize > 2 ** 30
  } catch {
    return false
  }
}

/** Drives Debian's Chromium against the running application; `npm run e2e` starts the application first. */
export default defineConfig({
  testDir: '.',
  fullyParallel: false,
  workers: worlds.length,
  // A browser on a loaded machine may stop drawing for good, once in some hundred tests. That alone may be tried again, once in a run, and is named
  // in the totals; whatever else passes only the second time has failed (scripts/test.mjs).
  retries: 1,
  // A whole day on a machine that does other things besides; each act and each wait of it has its own, much shorter.
  timeout: 600_000,
  // As long as an act may take: a machine that does other things besides is slow, and what hangs still fails.
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  outputDir: '../test-results/e2e',
  use: {
    baseURL: process.env.GEOLABE_URL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // What cannot be done is said at once, not at the end of the test's time.
    actionTimeout: 20_000,
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      ...(roomInMemory() && { ignoreDefaultArgs: ['--disable-dev-shm-usage'] }),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
