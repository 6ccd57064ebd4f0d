// `npm run replays [how many]`: runs of practice driven at random, played by this server's engine and by the browser's: the same score and
// words, and every figure of their states within a millionth. Loopback is not needed: the page is blank.
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { chromium } from '@playwright/test'
import { build } from 'vite'
import { demoMachine, demoMachines } from '../core/test/demo'
import { ensureChromium, root } from './environment.mjs'

const wanted = Number(process.argv[2] ?? 500)
const same = 1e-6

ensureChromium()
const out = join(root, 'node_modules/.replays')
mkdirSync(out, { recursive: true })
const entry = join(root, 'core/bench/replays.ts')
for (const [formats, fileName] of [
  [['es'], 'here.mjs'],
  [['iife'], 'there.js'],
])
  await build({
    configFile: false,
    logLevel: 'warn',
    build: { lib: { entry, formats, name: 'replays', fileName: () => fileName }, outDir: out, emptyOutDir: false, minify: false },
  })
const here = await import(pathToFileURL(join(out, 'here.mjs')).href)

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] })
const page = await browser.newPage()
await page.addScriptTag({ path: join(out, 'there.js') })
const games = demoMachines.map((id) => demoMachine(id)).flatMap((m) => here.waysOf(m).map((play, way) => ({ m, way, play })))
await page.evaluate(
  (machines) => {
    globalThis.machines = machines
  },
  Object.fromEntries(games.map(({ m }) => [m.id, m])),
)

let worst = 0
let otherwise = 0
let figures = 0
for (let i = 0; i < wanted; i++) {
  const { m, way, play } = games[i % games.length]
  const seed = 7919 * (i + 1)
  const mine = play(m, seed)
  const its = await page.evaluate(
    ([id, w, s]) => {
      const machine = globalThis.machines[id]
      return globalThis.replays.waysOf(machine)[w](machine, s)
    },
    [m.id, way, seed],
  )
  const apart = Math.max(0, ...mine.figures.map((x, k) => Math.abs(x - (its.figures[k] ?? Number.NaN))))
  const differs = mine.says !== its.says || mine.figures.length !== its.figures.length || !(apart <= same)
  worst = Math.max(worst, apart)
  figures += mine.figures.length
  if (differs) {
    otherwise++
    console.log(`${m.id}, seed ${seed}: ${mine.says} here, ${its.says} there; ${apart} apart`)
  }
}
await browser.close()
console.log(
  `${wanted} runs on ${games.length} machines: ${otherwise} come to something else there; of ${figures} figures the most that one is apart is ${worst.toExponential(1)}`,
)
if (otherwise > 0) process.exitCode = 1
