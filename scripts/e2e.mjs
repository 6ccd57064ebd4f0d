// `npm run e2e`: the application in worlds of its own, one a browser worker, driven through a real browser.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { ensureChromium, ensurePackages, root } from './environment.mjs'
import { openWorld } from './world.mjs'

ensurePackages()
ensureChromium()
/** One after the other: each looks for ports that are free. */
const worlds = [await openWorld(), await openWorld()]
const run = spawn(
  process.execPath,
  [join(root, 'node_modules/@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts', ...process.argv.slice(2)],
  {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, GEOLABE_WORLDS: JSON.stringify(worlds.map((w) => w.environment)) },
  },
)
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => run.kill(signal))
run.on('exit', (code) => {
  for (const world of worlds) world.close()
  process.exit(code ?? 1)
})
