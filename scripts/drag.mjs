// `npm run drag`: what a pointer move costs in Prove with the working area on. A set-down point is dragged round and out in an
// application of its own; the browser's own trace says how much script the main thread ran. Limit by design: 6 ms a move.
import { writeFileSync } from 'node:fs'
import { chromium } from '@playwright/test'
import { openSheet, readyToProve, sizeIt } from '../e2e/work'
import { ensureChromium } from './environment.mjs'
import { openWorld } from './world.mjs'

const least_ms = 6
const moves = 240

/** Time of script in a trace's main thread: tasks that run code, none counted inside another, milliseconds. */
function scriptIn(events) {
  const names = new Set([
    'FunctionCall',
    'EvaluateScript',
    'EventDispatch',
    'FireAnimationFrame',
    'RunMicrotasks',
    'TimerFire',
    'v8.callFunction',
  ])
  const main = events.find((e) => e.name === 'thread_name' && e.args.name === 'CrRendererMain')
  const own = events
    .filter((e) => e.ph === 'X' && e.pid === main.pid && e.tid === main.tid && names.has(e.name))
    .sort((a, b) => a.ts - b.ts)
  let until = 0
  let sum_us = 0
  for (const e of own) {
    if (e.ts < until) continue
    until = e.ts + e.dur
    // Of the thread's own time: what else the machine does is not counted.
    sum_us += e.tdur ?? e.dur
  }
  return sum_us / 1000
}

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]

ensureChromium()
const world = await openWorld()
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
let failed = false
try {
  const context = await browser.newContext({ baseURL: world.url, locale: 'en-GB', viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await readyToProve(page)
  await sizeIt(page)
  await openSheet(page, 'Path')
  await page.waitForTimeout(1500)
  const dial = await page.getByRole('group', { name: /Plan of the lift/ }).boundingBox()
  const point = await page.getByRole('slider', { name: 'Set-down point' }).boundingBox()
  const [cx, cy] = [dial.x + dial.width / 2, dial.y + dial.height / 2]
  const [dx, dy] = [point.x + point.width / 2 - cx, point.y + point.height / 2 - cy]
  const to = (i) => {
    const [turn, out] = [Math.sin(i / 25) * 0.5, 1 + 0.25 * Math.sin(i / 11)]
    return [cx + out * (dx * Math.cos(turn) - dy * Math.sin(turn)), cy + out * (dx * Math.sin(turn) + dy * Math.cos(turn))]
  }
  await page.mouse.move(...to(0))
  await page.mouse.down()
  // Warm: what is compiled while a finger moves is compiled once.
  for (let i = 0; i < 80; i++) await page.mouse.move(...to(i))
  await page.evaluate(() => {
    window.frames_ms = []
    let last = performance.now()
    const tick = (now) => {
      window.frames_ms.push(now - last)
      last = now
      window.ticking = requestAnimationFrame(tick)
    }
    window.ticking = requestAnimationFrame(tick)
  })
  const cdp = await context.newCDPSession(page)
  const events = []
  cdp.on('Tracing.dataCollected', ({ value }) => events.push(...value))
  await cdp.send('Tracing.start', { categories: 'devtools.timeline,v8,__metadata', transferMode: 'ReportEvents' })
  // Straight to the browser: what the tool that moves the mouse runs in the page itself is not the page's.
  const moveTo = ([x, y]) => cdp.send('Input.dispatchMouseEvent', { type: 'mouseMoved', x, y, button: 'left', buttons: 1 })
  for (let i = 80; i < 80 + moves; i++) {
    await moveTo(to(i))
    await page.waitForTimeout(14)
  }
  const done = new Promise((go) => cdp.once('Tracing.tracingComplete', go))
  await cdp.send('Tracing.end')
  await done
  const frames_ms = await page.evaluate(() => {
    cancelAnimationFrame(window.ticking)
    return window.frames_ms
  })
  await page.mouse.up()
  if (process.env.GEOLABE_TRACE) writeFileSync(process.env.GEOLABE_TRACE, JSON.stringify(events))
  const script_ms = scriptIn(events) / moves
  failed = script_ms >= least_ms
  console.log(`${moves} pointer moves in Prove, working area on`)
  console.log(`script on the main thread   ${script_ms.toFixed(2)} ms a move (under ${least_ms})${failed ? '  OVER' : ''}`)
  console.log(`median frame interval       ${median(frames_ms).toFixed(1)} ms`)
} finally {
  await browser.close()
  world.close()
}
process.exit(failed ? 1 : 0)
