// `npm run e2e`: the application in a world of its own, driven through a real browser.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { ensureChromium, ensurePackages, root } from './environment.mjs'
import { openWorld } from './world.mjs'

ensurePackages()
ensureChromium()
const world = await openWorld()
const run = spawn(
  process.execPath,
  [join(root, 'node_modules/@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts', ...process.argv.slice(2)],
  {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...world.environment },
  },
)
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => run.kill(signal))
run.on('exit', (code) => {
  world.close()
  process.exit(code ?? 1)
})
