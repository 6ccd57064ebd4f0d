import { randomUUID } from 'node:crypto'
import type { Exam, MachineFile, PeoplePage } from '@geolabe/contract'
import {
  answerTo,
  emergencyCards,
  itemsOfRound,
  keep,
  type Machine,
  mistakesOn,
  type Opinion,
  offerAt,
  type ProcedureStep,
  type SequenceAct,
  type SequenceCourse,
  SequenceDrill,
  sequenceCourse,
  statesOfCourse,
} from '@geolabe/core'
import { expect, type Locator, type Page } from '@playwright/test'
import { post } from './by-api'
import { look } from './day'
import { audit, fits, query, signOn, test } from './work'

/** A figure of the run, as it stands on the screen; minutes and seconds as seconds. */
async function figure(page: Page, label: string): Promise<number> {
  const text =
    (await page
      .getByText(label, { exact: true })
      .locator('..')
      .locator('dd')
      .textContent({ timeout: 2000 })
      .catch(() => '')) ?? ''
  const [minutes, seconds] = text.split(':')
  return seconds === undefined ? Number.parseFloat(text) : 60 * Number(minutes) + Number(seconds)
}

/** Time stands still from here on, but for what the test lets pass. The clock is asked again where the machine was too slow to set it ahead. */
const standStill = (page: Page) =>
  expect(async () => page.clock.pauseAt(await page.evaluate(() => Date.now() + 200))).toPass({ timeout: 20_000 })

/** Ines as she begins, with nothing practised yet and a clock that can be stopped. */
async function unpractised(page: Page): Promise<void> {
  await query('delete from practice_run')
  await query('delete from practice_point')
  await page.clock.install()
  await signOn(page, 'Ines Haldane')
}

const over = (page: Page) => page.getByRole('button', { name: 'Again the same' }).isVisible()

/** Held until it is so; where the device fell behind and time stands still, it is taken up again, as a person would. */
async function held(
  page: Page,
  lever: { down: () => Promise<void>; up: () => Promise<void> },
  until: () => Promise<boolean>,
): Promise<void> {
  await lever.down()
  await expect
    .poll(
      async () => {
        const again = page.getByRole('button', { name: 'Go on' })
        if (await again.isVisible()) {
          await lever.up()
          await again.click()
          await lever.down()
        }
        return until()
      },
      { timeout: 60_000, intervals: [100] },
    )
    .toBe(true)
  await lever.up()
}

/** Script of a frame and the median time between two, over three seconds. */
async function frames(page: Page): Promise<string> {
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Performance.enable')
  const script_s = async () =>
    (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'ScriptDuration')?.value ?? Number.NaN
  const before_s = await script_s()
  const between = await page.evaluate(
    () =>
      new Promise<number[]>((done) => {
        const [from, at]: [number, number[]] = [performance.now(), []]
        const next = (now: number) => {
          at.push(now)
          if (now - from < 3000) requestAnimationFrame(next)
          else done(at.slice(1).map((t, i) => t - (at[i] ?? t)))
        }
        requestAnimationFrame(next)
      }),
  )
  const median_ms = between.sort((a, b) => a - b)[Math.floor(between.length / 2)] ?? Number.NaN
  const each_ms = ((await script_s()) - before_s) * 1000
  return `${(each_ms / between.length).toFixed(1)} ms of script a frame, a frame every ${median_ms.toFixed(0)} ms`
}

test('load control on the machine’s own levers: driven by keys and by a thumb, told what was wrong, kept once', async ({
  page,
}) => {
  await query('delete from practice_run')
  await signOn(page, 'Ines Haldane')
  await page.getByRole('link', { name: 'Practice', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Practice', exact: true })).toBeVisible()
  await audit(page)
  await look(page, 'practice')
  await page.getByRole('link', { name: /^Load control on Tern/ }).click()
  await expect(page.getByText('Set the load down in each ring, in turn.')).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-ready')
  await page.getByRole('button', { name: 'Begin' }).click()

  // By its own map of controls: left is slewed with the left lever.
  const key = (name: string) => ({ down: () => page.keyboard.down(name), up: () => page.keyboard.up(name) })
  await held(page, key('a'), async () => (await figure(page, 'Time')) >= 3)
  await look(page, 'practice-going')
  const thumb = await page.getByRole('group', { name: 'Right lever' }).boundingBox()
  if (!thumb) throw new Error('no lever')
  const [x, y] = [thumb.x + thumb.width / 2, thumb.y + thumb.height / 2]
  const lower = {
    down: async () => {
      await page.mouse.move(x, y)
      await page.mouse.down()
      await page.mouse.move(x - 70, y, { steps: 4 })
    },
    up: () => page.mouse.up(),
  }
  // Let down all the way, and rope enough to go aside; then hauled up again from where the hook stands beside it.
  await held(page, lower, async () => (await figure(page, 'Over the deck')) === 0)
  const down_s = await figure(page, 'Time')
  await held(page, lower, async () => (await figure(page, 'Time')) >= down_s + 2)
  await page.keyboard.press('Space')
  const beside_m = await figure(page, 'Beside the hook')
  await held(page, key('d'), async () => Math.abs((await figure(page, 'Beside the hook')) - beside_m) > 1.5 || (await over(page)))
  await held(page, key('ArrowRight'), () => over(page))
  await expect(page.getByRole('heading', { name: /^Stopped: lifted with the hook beside the load/ })).toBeVisible()
  await expect(page.getByText('of 100, not passed')).toBeVisible()
  await audit(page)
  await look(page, 'practice-after')
  await expect.poll(() => query<{ score: number }>('select score from practice_run')).toEqual([{ score: 0 }])
  await page.getByRole('button', { name: 'Again the same' }).click()
  await expect(page.getByRole('button', { name: 'Begin' })).toBeVisible()

  // A gamepad is the same levers: its left stick slews; taken away, time stands still.
  const pad = (axes: number[] | null) =>
    page.evaluate((given) => {
      const there = given && { connected: true, mapping: 'standard', axes: given, buttons: [] }
      Object.assign(navigator, { getGamepads: () => [there] })
      dispatchEvent(new Event(there ? 'gamepadconnected' : 'gamepaddisconnected'))
    }, axes)
  await pad([0, 0, 0, 0])
  await expect(page.getByText('left stick', { exact: true })).toBeVisible()
  await fits(page)
  await page.getByRole('button', { name: 'Begin' }).click()
  const stick = { down: () => pad([-1, 0, 0, 0]), up: () => pad([0, 0, 0, 0]) }
  const lights = () => page.getByText('Slew left').evaluate((it) => it.classList.contains('font-bold'))
  await held(page, stick, async () => (await lights()) && (await figure(page, 'Time')) > 1)
  await look(page, 'practice-gamepad')
  // Printed, not held: other work shares this machine.
  for (const [width, height] of [
    [1280, 800],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height })
    console.log(`     practice at ${width}×${height}: ${await frames(page)}`)
  }
  await page.setViewportSize({ width: 1280, height: 800 })
  await pad(null)
  await expect(page.getByText('Time stands still. Go on when you are ready.')).toBeVisible()
  await page.getByRole('button', { name: 'Leave practice' }).click()
  await expect(page.getByRole('link', { name: /^Load control on Tern, last 0 of 100/ })).toBeVisible()
  expect(await query('select from practice_run')).toHaveLength(1)
})

/** A course that is known: the next seed is this one, and the last run was so hard. */
async function nextCourse(page: Page, machine: string, seed: number, level: number): Promise<void> {
  await page.addInitScript((drawn) => {
    const own = crypto.getRandomValues.bind(crypto)
    Object.assign(crypto, {
      getRandomValues: (a: Uint8Array<ArrayBuffer> | Uint32Array<ArrayBuffer>) =>
        a instanceof Uint32Array && a.length === 1 ? a.fill(drawn) : own(a),
    })
  }, seed)
  await page.route('**/api/practice/runs', async (route) => {
    const { runs, ...page } = await (await route.fetch()).json()
    const last = { ...runs[0], id: randomUUID(), machine, game: 'load', level, passed: false }
    await route.fulfill({ json: { ...page, runs: [last] } })
  })
}

test('a ring that nobody sees from the controls: the load is led into it by what a signaller calls', async ({ page }) => {
  await page.clock.install()
  await signOn(page, 'Ines Haldane')
  await nextCourse(page, 'tern', 16, 0.78)
  await page.goto('/practice/tern')
  await expect(page.getByText(/One ring lies out of sight\. There a signaller talks you in/)).toBeVisible()
  await standStill(page)
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const called = page.getByRole('status', { name: 'Your signaller' })
  const keys = { Left: 'a', Right: 'd', Out: 'ArrowUp', In: 'ArrowDown', Lower: 'ArrowLeft', Up: 'ArrowRight' } as const
  /** Held for so long at half, and let go. */
  const half = async (key: string, ms: number) => {
    await page.keyboard.down('Shift')
    await page.keyboard.down(key)
    await page.clock.runFor(ms)
    await page.keyboard.up(key)
    await page.keyboard.up('Shift')
    await page.clock.runFor(2000 - ms)
  }
  // It lies to the left and nearer in: that way until it is out of sight.
  await page.clock.runFor(500)
  expect(await figure(page, 'Over the deck')).toBeGreaterThan(1)
  for (let i = 0; i < 8 && !(await called.isVisible()); i++) await half('a', 1200)
  const heard: string[] = []
  for (let i = 0; i < 60 && (await page.getByText('1 of 3', { exact: true }).isVisible()); i++) {
    const words = (await called.textContent({ timeout: 1000 }).catch(() => '')) ?? ''
    heard.push(words)
    if (i === 0) {
      await look(page, 'practice-out-of-sight')
      // What is not seen has no figure.
      for (const of of ['Beside the hook', 'Over the deck']) expect(await figure(page, of)).toBeNaN()
    }
    const [, way = '', far = '0'] = words.match(/^(Left|Right|Out|In|Lower|Up again), ([\d.]+) m$/) ?? []
    const key = keys[way.split(' ')[0] as keyof typeof keys]
    if (key) await half(key, way === 'Lower' ? 700 : Math.min(1500, 300 + 350 * Number(far)))
    else await page.clock.runFor(1000)
  }
  await page.clock.resume()
  expect(await page.getByText('2 of 3', { exact: true }).isVisible(), heard.join(' · ')).toBe(true)
  expect(heard.some((w) => w.startsWith('Lower'))).toBe(true)
  // The next ring is seen from there: once it is up, nobody talks any more.
  await expect(called).toHaveText(/^Up again, /)
})

test('figures read by somebody else, judged: told at once, kept once though there was no network, and what was missed comes again', async ({
  page,
  context,
}) => {
  await query('delete from practice_run')
  await query('delete from practice_point')
  await signOn(page, 'Tomas Brekke')
  await page.goto('/practice')
  await page.getByRole('link', { name: /^Judgement on Dunlin/ }).click()
  const answer = async (what: string, sure: string) => {
    await page.getByRole('button', { name: what }).click()
    await page.getByRole('button', { name: sure }).click()
  }
  await expect(page.getByText('Practice, 1 of 10')).toBeVisible()
  await expect(page.getByRole('button', { name: '90 %' })).toBeDisabled()
  await audit(page)
  await fits(page)
  await look(page, 'practice-tables')
  await context.setOffline(true)
  for (let i = 1; i <= 10; i++) {
    await expect(page.getByText(`Practice, ${i} of 10`)).toBeVisible()
    await answer('Nothing is wrong', '90 %')
    await expect(page.getByText(/^(Right|Missed)\.$/)).toBeVisible()
    if (i === 1) {
      await audit(page)
      await fits(page)
      await look(page, 'practice-tables-told')
    }
    await page.getByRole('button', { name: i < 10 ? 'Next' : 'What it came to' }).click()
  }
  await expect(page.getByRole('heading', { name: /^\d mistakes? passed as right\.$/ })).toBeVisible()
  await expect(page.getByText('of 100, not passed')).toBeVisible()
  await audit(page)
  await look(page, 'practice-tables-after')
  await context.setOffline(false)
  await expect.poll(() => query("select from practice_run where game = 'judge'"), { timeout: 30_000 }).toHaveLength(1)
  await page.getByRole('button', { name: 'Leave practice' }).click()
  await page.getByRole('link', { name: 'How it goes, skill by skill' }).click()
  await expect(page.getByText('judgement, points')).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-progress')
  // Offered in the yard to whoever has no machine.
  await page.getByRole('link', { name: 'Yard', exact: true }).click()
  await page.getByRole('link', { name: /^Five minutes/ }).click()
  await expect(page.getByRole('heading', { name: 'Five minutes' })).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-five')
  await page.getByRole('link', { name: /^Dunlin, judgement/ }).click()
  await expect(page.getByText('Practice, 1 of 10')).toBeVisible()
  expect(await query("select from practice_run where game = 'judge'")).toHaveLength(1)
})

test('how a machine stands, judged from a picture: which foot is touched on it, and it is told there', async ({ page }) => {
  await query('delete from practice_run')
  await query('delete from practice_point')
  await signOn(page, 'Tomas Brekke')
  await page.goto('/practice/tern/judgement?only=leg-short,near-edge,weak-ground')
  await expect(page.getByText('Practice, 1 of 10')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Stand of Tern' })).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-stand')
  for (let i = 1; i <= 10; i++) {
    await expect(page.getByText(`Practice, ${i} of 10`)).toBeVisible()
    await page.getByRole('button', { name: 'Ground too weak' }).click()
    // Where it is has to be said before how sure: on the picture, or by its name.
    await expect(page.getByRole('button', { name: '60 %' })).toBeDisabled()
    if (i % 2 === 0) await page.getByRole('button', { name: 'rear left leg', exact: true }).click()
    else await page.getByRole('button', { name: /^rear left leg \d/ }).click()
    await expect(page.getByRole('button', { name: 'rear left leg', exact: true, pressed: true })).toBeVisible()
    await page.getByRole('button', { name: '60 %' }).click()
    await expect(page.getByText(/^(Right|Not there|Nothing was wrong|Seen, but it was something else)\.$/)).toBeVisible()
    if (i === 1) await fits(page)
    await page.getByRole('button', { name: i < 10 ? 'Next' : 'What it came to' }).click()
  }
  await expect(page.getByText('of 100, not passed')).toBeVisible()
  // Each is there to be seen again, with what was wrong with it.
  await page
    .getByRole('button', { name: /^Its stand/ })
    .first()
    .click()
  await expect(page.getByRole('dialog', { name: 'Stand of Tern, 1 of 10' })).toBeVisible()
  await audit(page)
  await look(page, 'practice-stand-again')
  await page.getByRole('button', { name: 'Close' }).click()
  await expect.poll(() => query("select from practice_run where game = 'judge'")).toHaveLength(1)
  const [kept] = await query<{ falseAlarms: number; claimed: number | null }>(
    `select (result->>'falseAlarms')::int as "falseAlarms", claimed from practice_run`,
  )
  expect(kept?.claimed).toBeNull()
  expect(kept?.falseAlarms).toBeGreaterThan(2)
  // How a truck is about to be driven is judged from a picture too.
  await page.goto('/practice/whimbrel/judgement?only=too-low')
  await expect(page.getByRole('img', { name: /^Whimbrel from its side as it would be driven/ })).toBeVisible()
  await audit(page)
  await look(page, 'practice-way')
  await page.getByRole('button', { name: 'Too low' }).click()
  await page.getByRole('button', { name: '60 %' }).click()
  await expect(page.getByRole('status').filter({ hasText: /Right\.|Nothing was wrong\./ })).toBeVisible()
  await fits(page)
  // And a part of the walk-round, as it is seen and was measured.
  await page.goto('/practice/whimbrel/judgement?only=part-worn,part-missing,part-cracked')
  await expect(page.getByRole('heading', { name: 'Walk round Whimbrel' })).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-part')
  await page.getByRole('button', { name: 'Something missing' }).click()
  await expect(page.getByRole('button', { name: '60 %' })).toBeDisabled()
  await touchSeen(page.getByRole('button', { name: /, on the picture$/ }).first())
  await page.getByRole('button', { name: '60 %' }).click()
  await expect(
    page.getByRole('status').filter({ hasText: /Right\.|Not there\.|Nothing was wrong\.|Seen, but it was something else\./ }),
  ).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-part-told')
  // And so is wind as somebody has reckoned it.
  await page.goto('/practice/tern/judgement?only=sail-left-out,height-left-out')
  await expect(page.getByRole('heading', { name: 'Wind at Tern' })).toBeVisible()
  await audit(page)
  await look(page, 'practice-wind')
  await page.getByRole('button', { name: 'Height of the tip left out' }).click()
  await page.getByRole('button', { name: '60 %' }).click()
  await expect(page.getByText(/^Gusts come to .* lifted in/)).toBeVisible()
  await fits(page)
})

/** Touches something drawn where it is seen: a tread is a ring, and in its middle lies another part. */
async function touchSeen(drawn: Locator): Promise<void> {
  const at = await drawn.evaluate((el) => {
    const { left, top, width, height } = el.getBoundingClientRect()
    const shares = Array.from({ length: 40 }, (_, i) => (i + 0.5) / 40)
    const places = shares.flatMap((x) => shares.map((y) => [left + x * width, top + y * height] as const))
    return places.find(([x, y]) => document.elementFromPoint(x + 3, y + 3) === el && document.elementFromPoint(x, y) === el)
  })
  if (!at) throw new Error('Nothing of it is seen.')
  await drawn.page().mouse.click(...at)
}

/** What somebody does with the keys of Tern’s levers who is signalled to like this. */
const keyFor: Record<string, string | null> = {
  'Right arm up, the hand goes round slowly.': 'ArrowRight',
  'Right arm down, the hand goes round slowly.': 'ArrowLeft',
  'Right arm out, the hand goes that way and back.': 'a',
  'Left arm out, the hand goes that way and back.': 'd',
  'Right arm out, forearm up, the hand goes up and back.': 'ArrowDown',
  'Right arm out, forearm down, the hand goes down and back.': 'ArrowUp',
  'Both elbows in, forearms out, the hands go apart and back.': 'w',
  'Both elbows out, forearms up, the hands come together and back.': 's',
}
/** And words to the same. */
const keyForWord: Record<string, string> = {
  Hoist: 'ArrowRight',
  Lower: 'ArrowLeft',
  'Slew left': 'a',
  'Slew right': 'd',
  'Boom up': 'ArrowDown',
  'Boom down': 'ArrowUp',
  Out: 'w',
  In: 's',
}
/** What is asked of something that moves already: half of the lever. */
const slowWords = ['Both arms out low, palms down, the hands pat the air.', 'Slowly']
/** Silent for so many tenths of a second, a load is stopped. */
const silent = 25

test('hand signals answered with the machine’s own levers: every one told with its time, kept once', async ({ page }) => {
  await unpractised(page)
  await page.goto('/practice')
  await page.getByRole('link', { name: /^Hand signals on Tern/ }).click()
  await expect(page.getByRole('heading', { name: 'Agreed' })).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-signals-agreed')
  await page.getByRole('button', { name: 'Tap ten times to begin' }).click()
  for (let left = 9; left > 0; left--) await page.getByRole('button', { name: `${left} more` }).click()
  await expect(page.getByText('Hands on the levers. Your signaller is before you.')).toBeVisible()
  await audit(page)
  await standStill(page)
  await page.getByRole('button', { name: 'Begin' }).click()
  let [held, looked, listened]: [string | null, boolean, boolean] = [null, false, false]
  let [heard, silence, slow] = ['', 0, false]
  // A tenth of a second at a time: seen, and answered three tenths later.
  const seen: string[] = []
  for (let i = 0; i < 1500; i++) {
    await page.clock.runFor(100)
    const figures = page.getByRole('img')
    if ((await page.getByRole('heading', { name: /^Practice: signals on Tern/ }).count()) === 0) break
    const radio = page.getByRole('region', { name: 'On the radio' })
    if (await radio.isVisible()) {
      const [, words = '', who = ''] = await radio.getByRole('paragraph').allTextContents()
      if (words !== '') silence = 0
      else silence += 1
      // What somebody else says is listened to for a stop only; between two words it goes on.
      heard = words === '' || (who === 'Somebody else' && words !== 'Stop') ? heard : words
      seen.push(silence > silent ? 'silence' : heard)
    } else {
      // What somebody else shows is looked at for a stop only.
      const labels = await figures.evaluateAll((all) => all.map((x) => x.getAttribute('aria-label') ?? ''))
      seen.push(labels.length === 2 && labels[1]?.startsWith('Right arm straight up') ? 'stop' : (labels[0] ?? 'gone'))
    }
    const now = seen.at(-4) ?? ''
    const slowly = slowWords.includes(now)
    if (slowly !== slow) await page.keyboard[slowly ? 'down' : 'up']('Shift')
    slow = slowly
    const key: string | null = slowly ? held : (keyFor[now] ?? keyForWord[now] ?? null)
    if (key && now in keyForWord && !listened) {
      listened = true
      await look(page, 'practice-radio')
      await fits(page)
    }
    if (key === held) continue
    if (held) await page.keyboard.up(held)
    if (key) await page.keyboard.down(key)
    held = key
    if (key && !looked) {
      looked = true
      await look(page, 'practice-signals')
      await fits(page)
    }
  }
  expect(listened).toBe(true)
  await page.clock.resume()
  await expect(page.getByRole('heading', { name: 'Every signal answered in time, and nothing moved without one.' })).toBeVisible()
  await audit(page)
  await look(page, 'practice-signals-after')
  await expect
    .poll(() =>
      query<{ passed: boolean }>("select (result->>'passed')::boolean as passed from practice_run where game = 'signal'"),
    )
    .toEqual([{ passed: true }])
})

test('signals given, the other way round: what is seen is told in words, somebody under a load is stopped for, and it is kept once', async ({
  page,
}) => {
  await unpractised(page)
  await page.goto('/practice/tern/signals')
  await page.getByRole('button', { name: 'The other way round: you signal' }).click()
  await expect(page.getByText('You face the operator. Give the signal that is next.')).toBeVisible()
  await audit(page)
  await standStill(page)
  await page.getByRole('button', { name: 'Begin' }).click()
  const told = page.getByRole('status')
  /** By the words alone; the rest is only seen, and is stopped. */
  const keys = { 'Watch me': '1', Stop: '6', 'Emergency stop': '7', 'Done, secured': '8' }
  const next = (words: string): keyof typeof keys => {
    if (/rope is loose/.test(words)) return 'Done, secured'
    if (/Somebody is under it\./.test(words) && !/hangs still/.test(words)) return 'Emergency stop'
    if (/looks elsewhere/.test(words)) return 'Watch me'
    return 'Stop'
  }
  let looked = false
  for (let i = 0; i < 400; i++) {
    await page.clock.runFor(200)
    if ((await page.getByRole('heading', { name: /^Practice: you signal/ }).count()) === 0) break
    const words = ((await told.first().textContent()) ?? '').trim()
    if (words === '') continue
    if (!looked) {
      looked = true
      await look(page, 'practice-give')
      await fits(page)
      await page.keyboard.press(keys[next(words)])
      continue
    }
    await page.getByRole('button', { name: new RegExp(`${next(words)} ?[0-9]$`) }).click()
  }
  await page.clock.resume()
  await expect(page.getByRole('heading', { name: 'Signal by signal' })).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: /^(?!.*you gave).*Emergency stop/ })).toHaveCount(2)
  await audit(page)
  await look(page, 'practice-given-after')
  await expect.poll(async () => (await query('select 1 from practice_run')).length, { timeout: 20_000 }).toBe(1)
  const [kept] = await query("select result->>'way' as way, result->'passed' as passed from practice_run")
  expect(kept).toEqual({ way: 'given', passed: false })
})

/** A gamepad with one of its keys held, or none. */
const padHeld = (page: Page, at: number | null) =>
  page.evaluate((held) => {
    const buttons = Array.from({ length: 16 }, (_, i) => ({ pressed: i === held, value: i === held ? 1 : 0 }))
    Object.assign(navigator, { getGamepads: () => [{ connected: true, mapping: 'standard', axes: [0, 0, 0, 0], buttons }] })
    dispatchEvent(new Event('gamepadconnected'))
  }, at)

test('a load driven with a truck’s own wheel and pedals: what went wrong is said and kept once, and by thumb as by key', async ({
  page,
}) => {
  await unpractised(page)
  await page.goto('/practice')
  await page.getByRole('link', { name: /^Driving with Whimbrel/ }).click()
  await expect(page.getByText('Take the load along the lane and set it down in the ring.')).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-driving-opening')
  await standStill(page)
  await page.getByRole('button', { name: 'Begin' }).click()
  const key = async (k: string, ms: number) => {
    await page.keyboard.down(k)
    await page.clock.runFor(ms)
    await page.keyboard.up(k)
  }
  await key('ArrowDown', 450)
  await key('k', 900)
  expect(await figure(page, 'Forks')).toBeGreaterThan(0.02)
  await expect(page.getByRole('button', { name: 'Horn' })).toHaveAttribute('aria-pressed', 'false')
  await page.keyboard.down('e')
  await page.clock.runFor(200)
  await expect(page.getByRole('button', { name: 'Horn' })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.up('e')
  // The shoulders of a gamepad are the same: eyes back on the left, horn on the right.
  for (const [at, name] of [
    [4, 'Eyes back'],
    [5, 'Horn'],
  ] as const) {
    await padHeld(page, at)
    await page.clock.runFor(100)
    await expect(page.getByRole('button', { name })).toHaveAttribute('aria-pressed', 'true')
    await padHeld(page, null)
    await page.clock.runFor(100)
    await expect(page.getByRole('button', { name })).toHaveAttribute('aria-pressed', 'false')
  }
  // Brake and key stay as they are put: by their keys, by the middle ones of a gamepad, by a touch.
  for (const [k, at, name] of [
    ['b', 8, /^Brake/],
    ['x', 9, /^Key out/],
  ] as const) {
    const button = page.getByRole('button', { name })
    await page.keyboard.press(k)
    await expect(button).toHaveAttribute('aria-pressed', 'true')
    await button.click()
    await expect(button).toHaveAttribute('aria-pressed', 'false')
    await padHeld(page, at)
    await page.clock.runFor(100)
    await padHeld(page, null)
    await page.clock.runFor(100)
    await expect(button).toHaveAttribute('aria-pressed', 'true')
    await page.keyboard.press(k)
    await expect(button).toHaveAttribute('aria-pressed', 'false')
  }
  // Off with full pedal, the wheel over: it says so before it is too late, and then it is.
  await page.keyboard.down('w')
  await page.clock.runFor(1800)
  expect(await figure(page, 'Speed')).toBeGreaterThan(1)
  await fits(page)
  await page.keyboard.down('a')
  await page.clock.runFor(700)
  await expect(page.getByText(/^In \d\.\d s too near its right edge$/)).toBeVisible()
  await look(page, 'practice-driving')
  await page.keyboard.press('Space')
  await page.keyboard.up('a')
  await page.keyboard.up('w')
  await page.clock.runFor(4000)
  expect(await figure(page, 'Speed')).toBe(0)
  // By thumb: back until it touches.
  const pedals = page.getByRole('group', { name: 'Left pedal, Right pedal' })
  const box = await pedals.boundingBox()
  if (!box) throw new Error('no pedals')
  await page.mouse.move(box.x + box.width / 2, box.y + 30)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + 110, { steps: 4 })
  const told = page.getByRole('heading', { name: 'Truck or load hit something.' })
  for (let i = 0; i < 60 && !(await told.isVisible()); i++) await page.clock.runFor(500)
  await page.mouse.up()
  await page.clock.resume()
  await expect(told).toBeVisible()
  await expect(page.getByText('Eyes back before going backwards: missed')).toBeVisible()
  await audit(page)
  await look(page, 'practice-driving-after')
  const kept = () =>
    query<{ stopped: string; claimed: number | null }>(
      "select result->>'stopped' as stopped, claimed from practice_run where game = 'drive'",
    )
  await expect.poll(kept).toEqual([{ stopped: 'touched', claimed: null }])
  await page.getByRole('button', { name: 'Again the same' }).click()
  await expect(page.getByRole('button', { name: 'Begin' })).toBeVisible()
  expect(await kept()).toHaveLength(1)
  // Whoever rises with the load picks along an aisle, chassis first.
  await page.goto('/practice/sandpiper/driving')
  await expect(page.getByText('Pick at each mark along the aisle, then bring it to the ring.')).toBeVisible()
  await standStill(page)
  await page.getByRole('button', { name: 'Begin' }).click()
  await expect(page.getByText(/^Next shelf: on the (left|right), /)).toBeVisible()
  await key('w', 1500)
  expect(await figure(page, 'Speed')).toBeGreaterThan(0.3)
  await page.clock.runFor(3000)
  await key('ArrowUp', 2500)
  expect(await figure(page, 'Platform')).toBeGreaterThan(0.4)
  await fits(page)
  await look(page, 'practice-aisle')
})

const opinions: Record<Opinion, string> = {
  nothing: 'Nothing is wrong',
  'wrong-sheet': 'From another sheet',
  'wrong-row': 'From another row',
  'wrong-column': 'From another column',
  'between-rows': 'Read between rows',
  headline: 'The best figure of the sheet',
  deductions: 'Nothing taken off',
  'leg-short': 'A leg not out far enough',
  'over-cover': 'A foot on a cover',
  'near-edge': 'Too near the trench',
  'weak-ground': 'Ground too weak',
  'tail-room': 'No room for the tail',
  'out-of-level': 'Out of level',
  'forks-raised': 'Load carried too high',
  'too-steep': 'Too steep',
  'across-slope': 'Slopes too much across',
  'too-narrow': 'Too narrow',
  'too-low': 'Too low',
  slippery: 'Too slippery',
  'turned-fast': 'Too fast for the bend',
  'sail-left-out': 'The load’s own sail left out',
  'mean-for-gusts': 'Mean wind taken for gusts',
  'height-left-out': 'Height of the tip left out',
  'part-near': 'Near its limit: watch',
  'part-worn': 'At its limit: stop',
  'part-cracked': 'Cracked',
  'part-cut': 'Cut, or wires broken',
  'part-missing': 'Something missing',
  'part-bent': 'Bent, slack or bulged',
}

/** The places of a truck's parts, by their names. */
const partPlaces: Record<string, string> = {
  heel: 'heel',
  blade: 'blade',
  tip: 'tip',
  lock: 'lock',
  'left-chain': 'left chain',
  'right-chain': 'right chain',
  'left-anchor': 'left anchor',
  'right-anchor': 'right anchor',
  tread: 'tread',
  sidewall: 'sidewall',
  nuts: 'nuts',
}

test('an exam: set by an assessor, sat by another, a try left counts, passed, certified, its file checked with the network gone', async ({
  page,
  openPage,
}) => {
  await query('delete from practice_run')
  const desk = await openPage()
  await signOn(desk, 'Signe Abara')
  await desk.goto('/practice')
  await desk.getByRole('link', { name: 'Exams of practice' }).click()
  await expect(desk.getByRole('button', { name: 'Set this exam' })).toBeVisible()
  await audit(desk)
  await fits(desk)
  await look(desk, 'practice-exams')
  await desk.getByRole('button', { name: 'Set this exam' }).click()
  await expect(desk.getByText('Choose who is to be assessed.')).toBeVisible()
  await desk.getByLabel('Who', { exact: true }).selectOption({ label: 'Ines Haldane' })
  await desk.getByLabel('On which machine').selectOption({ label: 'Dunlin' })
  await desk.getByRole('radio', { name: 'Judgement' }).click()
  await desk.getByRole('button', { name: 'Set this exam' }).click()
  await expect(desk.getByRole('heading', { name: 'Exam: judgement on Dunlin' })).toBeVisible()
  await expect(desk.getByText('No try has been begun.')).toBeVisible()
  const id = desk.url().split('/').at(-1)
  const exam = async (of: Page): Promise<Exam> => (await of.request.get(`/api/practice/exams/${id}`)).json()

  await signOn(page, 'Ines Haldane')
  await page.goto('/practice')
  await page
    .getByRole('link', { name: /^Exam: judgement on Dunlin/ })
    .first()
    .click()
  await expect(page.getByRole('button', { name: 'Begin try 1 of 3' })).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-exam-opening')
  await page.getByRole('button', { name: 'Begin try 1 of 3' }).click()
  await expect(page.getByText('Practice, 1 of 10')).toBeVisible()
  await page.getByRole('button', { name: 'Leave practice' }).click()
  await expect(page.getByText(/its run has not come. It counts all the same.$/)).toBeVisible()
  await page.getByRole('link', { name: 'To try 2 of 3' }).click()
  await page.getByRole('button', { name: 'Begin try 2 of 3' }).click()
  await expect(page.getByText('Practice, 1 of 10')).toBeVisible()
  const { made, level } = await exam(page)
  const { definition, tables }: MachineFile = await (await page.request.get('/api/machines/dunlin')).json()
  const on = { machine: definition, tables }
  const items = itemsOfRound(on, { seed: made[1]?.seed ?? 0, level, only: mistakesOn(on) })
  // From here on it needs no network.
  await page.context().setOffline(true)
  for (const [i, item] of items.entries()) {
    await expect(page.getByText(`Practice, ${i + 1} of 10`)).toBeVisible()
    await page.getByRole('button', { name: opinions[item.wrong] }).click()
    if (item.of === 'part' && item.where[0])
      await page.getByRole('button', { name: partPlaces[item.where[0]], exact: true }).click()
    await page.getByRole('button', { name: '100 %' }).click()
    // In an exam nothing is told before its end: the next figure comes at once.
    if (i < 9) await expect(page.getByText(`Practice, ${i + 2} of 10`)).toBeVisible()
  }
  await expect(page.getByText('All are answered.')).toBeVisible()
  await page.getByRole('button', { name: 'What it came to' }).click()
  await expect(page.getByText('of 100', { exact: true })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Ten more' })).toHaveCount(0)
  await page.context().setOffline(false)
  await expect.poll(async () => (await exam(page)).made[1]?.result?.passed, { timeout: 30_000 }).toBe(true)
  await page.getByRole('button', { name: 'Back to the exam' }).click()
  await expect(page.getByText('2 of 3 tries made.')).toBeVisible()
  await expect(page.getByText('passed', { exact: true })).toBeVisible()

  await desk.reload()
  await desk.getByRole('button', { name: 'Note on try 2' }).click()
  await desk.getByRole('button', { name: 'Keep this note' }).click()
  await expect(desk.getByText('Say what you noted, or give a score.')).toBeVisible()
  await desk.getByLabel('What you noted').fill('Quick, and sure of it.')
  await desk.getByRole('button', { name: 'Keep this note' }).click()
  await expect(desk.getByText('Quick, and sure of it.')).toBeVisible()
  await audit(desk)
  await fits(desk)
  await look(desk, 'practice-exam')
  await desk.getByRole('button', { name: 'Issue the certificate' }).click()
  await audit(desk)
  await desk.getByRole('dialog').getByRole('button', { name: 'Issue the certificate' }).click()
  await desk.getByRole('link', { name: 'Certificates of practice' }).click()
  await expect(desk.getByText('Ines Haldane: judgement on Dunlin').first()).toBeVisible()
  await audit(desk)
  await fits(desk)
  await look(desk, 'practice-certificates')
  const { certificate } = await exam(desk)
  const file = await (await desk.request.get(`/api/practice/certificates/${certificate}/certificate.json`)).text()
  const check = async (text: string, says: string) => {
    await desk
      .getByLabel('Choose its file')
      .setInputFiles({ name: 'certificate.json', mimeType: 'application/json', buffer: Buffer.from(text) })
    await expect(desk.getByRole('status').getByText(says)).toBeVisible()
  }
  await desk.context().setOffline(true)
  await check(file, 'Genuine: as this installation signed it.')
  await check(file.replace('Ines Haldane', 'Tomas Brekke'), 'Altered: it is not what was signed.')
  await check('{}', 'This is no certificate of practice.')
  await desk.context().setOffline(false)
})

const words = (s: ProcedureStep) =>
  s.member ? `${s.label.slice(0, -`: ${s.member.label}`.length)} · ${s.member.label}` : s.label

/** One act of an order of work, as somebody does it who has the screen before them. */
async function act(page: Page, course: SequenceCourse, a: SequenceAct): Promise<void> {
  const { file } = course
  const tell = async (name: string) => {
    await page.getByRole('button', { name: 'Something is wrong' }).click()
    await page.getByRole('button', { name, exact: true }).click()
  }
  const key = (name: string) => page.getByRole('button', { name, exact: true }).click()
  if (a.do === 'look') {
    const at = statesOfCourse(course).findIndex((s) => s.id === a.state)
    await page.getByRole('region', { name: 'As you have been told' }).getByRole('button').nth(at).click()
  } else if (a.do === 'step') {
    const step = file.procedures.flatMap((p) => p.steps).find((s) => s.id === a.step)
    await page
      .getByRole('region', { name: 'What comes next?' })
      .getByRole('button', { name: step ? words(step) : '', exact: true })
      .click()
  } else if (a.do === 'stop') await tell(file.stops.find((s) => s.id === a.stop)?.label ?? '')
  else if (a.do === 'lost') await tell({ sight: 'Contact lost', impact: 'It was knocked', moved: 'It has moved' }[a.why])
  else if (a.do === 'symptom') await tell(a.symptom)
  else if (a.do === 'emergency') await tell(emergencyCards(file.emergency).find((c) => c.id === a.card)?.label ?? '')
  else if (a.do === 'call') await key('Stand still and call')
  else if (a.do === 'next') await key(a.words)
  else if (a.do === 'answer') await key(a.label)
  // The second tap of a finger is not taken for another act.
  await page.waitForTimeout(350)
}

test('an order of work kept while things go wrong: what would break is shown, a try is passed without network, nobody’s word taken', async ({
  page,
  openPage,
}) => {
  const desk = await openPage()
  await signOn(desk, 'Signe Abara')
  const people: PeoplePage = await (await desk.request.get('/api/people')).json()
  const id = randomUUID()
  await post(desk, '/practice/exams', {
    id,
    person: people.people.find((p) => p.name === 'Ines Haldane')?.id,
    machine: 'tern',
    game: 'sequence',
    level: 0.5,
    tries: 2,
    until: '2099-12-31',
    word: true,
  })
  await desk.goto(`/practice/exams/${id}`)
  await signOn(page, 'Ines Haldane')
  const exam = async (): Promise<Exam> => (await page.request.get(`/api/practice/exams/${id}`)).json()
  const tern: Machine = ((await (await page.request.get('/api/machines/tern')).json()) as MachineFile).definition
  /** A try begun, and the same course here. */
  const begin = async (n: number) => {
    await page.goto(`/practice/tern/order?exam=${id}`)
    await page.getByRole('button', { name: `Begin try ${n} of 2` }).click()
    await expect(page.getByText('Wait for the word.')).toBeVisible()
    await expect(desk.getByText('Ines Haldane waits for your word.')).toBeVisible()
    if (n === 1) {
      await audit(page)
      await audit(desk)
      await fits(desk)
    }
    await desk.getByRole('button', { name: 'Give the word' }).click()
    await expect(page.getByText('Somebody hands it over to you, part of the way. Go on in order.')).toBeVisible()
    const { made, level } = await exam()
    const seed = made[n - 1]?.seed ?? 0
    return { seed, course: sequenceCourse(tern, seed, level) }
  }
  const first = await begin(1)
  await audit(page)
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  // What has come is met before anything is tried.
  const met = (): [SequenceDrill, SequenceAct[]] => {
    const [drill, acts]: [SequenceDrill, SequenceAct[]] = [new SequenceDrill(tern, first.course, first.seed), []]
    for (let a = answerTo(drill); a; a = answerTo(drill)) {
      acts.push(a)
      drill.do([1, a])
    }
    return [drill, acts]
  }
  const [one, acts] = met()
  for (const a of acts) await act(page, first.course, a)
  // What can hurt, where something of that kind is offered: it is played what would break.
  const refused = offerAt(first.course, one.told, first.seed, one.taken)
    .filter((s) => {
      const [drill] = met()
      // What rests on somebody's word is refused in other words.
      return drill.do([2, { do: 'step', step: s.id }]).of === 'refused' && !drill.refused.some((r) => r.trusted)
    })
    .sort((a, b) => b.hazards.length - a.hazards.length)[0]
  if (!refused) throw new Error('nothing among what is offered is out of order')
  await act(page, first.course, { do: 'step', step: refused.id })
  await expect(page.getByText(`Not yet: ${refused.label}`)).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-order-refused')
  await page.getByRole('button', { name: 'Something is wrong' }).click()
  await expect(page.getByRole('heading', { name: 'A stop was pressed' })).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-order-wrong')
  await page.getByRole('button', { name: 'Leave practice' }).click()

  const second = await begin(2)
  await page.context().setOffline(true)
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const two = new SequenceDrill(tern, second.course, second.seed)
  for (const a of keep(new SequenceDrill(tern, second.course, second.seed), true)) {
    const before = two.told
    const came = two.do([1, a])
    // Whoever wants to see everything may; here only what is not as it was said is looked at.
    if (came.of === 'seen' && two.told === before) continue
    await act(page, second.course, a)
  }
  expect(two.over).toBe(true)
  await expect(page.getByRole('heading', { name: 'Kept in order, and everything met as it came.' })).toBeVisible()
  await audit(page)
  await fits(page)
  await look(page, 'practice-order-after')
  await page.context().setOffline(false)
  await expect.poll(async () => (await exam()).made[1]?.result?.passed, { timeout: 30_000 }).toBe(true)
  expect((await exam()).made[1]?.claimed).toBeNull()
})

test('an exam of load control with swing, wind and clock as the assessor sets them', async ({ page, openPage }) => {
  const desk = await openPage()
  await signOn(desk, 'Signe Abara')
  await desk.goto('/practice/exams')
  await desk.getByLabel('Who', { exact: true }).selectOption({ label: 'Ines Haldane' })
  await desk.getByLabel('On which machine').selectOption({ label: 'Tern' })
  await desk.getByRole('radio', { name: 'Load control' }).click()
  await desk.getByRole('radio', { name: 'Across the boom' }).click()
  await desk.getByLabel('How wide, 1 to 15°').fill('40')
  await desk.getByRole('button', { name: 'Set this exam' }).click()
  await expect(desk.getByText('From 1 to 15 degrees.')).toBeVisible()
  await desk.getByLabel('How wide, 1 to 15°').fill('15')
  await desk.getByLabel('Let go').selectOption({ label: 'at its top, to the right' })
  await desk.getByRole('radio', { name: 'As I set it' }).click()
  await desk.getByRole('radio', { name: 'Runs down' }).click()
  await desk.getByLabel('Down from, s').fill('90')
  await audit(desk)
  await fits(desk)
  await look(desk, 'practice-exam-swing')
  await desk.getByRole('button', { name: 'Set this exam' }).click()
  await expect(desk.getByRole('heading', { name: 'Exam: load control on Tern' })).toBeVisible()
  await expect(desk.getByText(/a swing of 15° across the boom; wind .*; a clock that runs down from 1:30/)).toBeVisible()
  const id = desk.url().split('/').at(-1)
  await signOn(page, 'Ines Haldane')
  await page.goto(`/practice/tern?exam=${id}`)
  await page.getByRole('button', { name: 'Begin try 1 of 3' }).click()
  await expect(page.getByText('Time left', { exact: true })).toBeVisible()
  await expect(page.getByText(/^It swings across the boom as you begin\. Catch it first/)).toBeVisible()
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  // Left alone it is beside the hook by as much as it was given.
  const nothing = { down: async () => {}, up: async () => {} }
  await held(page, nothing, async () => (await figure(page, 'Beside the hook')) > 1 && (await figure(page, 'Time left')) < 90)
  // Who set it watches as it goes, and notes the moment. A device that falls behind stands still: some seconds have been told by then.
  await held(page, nothing, async () => (await figure(page, 'Time left')) < 87)
  await desk.getByRole('button', { name: 'Watch try 1' }).click()
  const watched = desk.getByRole('dialog', { name: 'Practice: try 1 of Ines Haldane, under way' })
  await expect(watched.getByRole('img', { name: /^From above, 0:(0[1-9]|[1-5]\d) into the run/ })).toBeVisible({
    timeout: 20_000,
  })
  await audit(desk)
  await look(desk, 'practice-watched')
  await watched.getByRole('button', { name: 'Note this moment' }).click()
  await watched.getByLabel('What you noted').fill('Lets it hang')
  await watched.getByRole('button', { name: 'Keep this note' }).click()
  await watched.getByRole('button', { name: 'Close' }).click()
  await expect(desk.getByRole('list', { name: 'Notes of try 1' })).toContainText(/0:\d\d Lets it hang/)
})

test('a site that asks for practice says so before a machine is taken, and only that site', async ({ page, openPage }) => {
  const office = await openPage()
  await signOn(office, 'Wilhelmina Osei')
  const answer = (policy: string, value: string | number) =>
    post(office, '/places/lighthouse-terrace/policies', {
      policy,
      value,
      why: 'New people from the spring on.',
      engineer: 'Calder',
    })
  // Away since yesterday is away.
  await answer('practice.absence_days', 1e-6)
  await answer('practice.before', 'certificate')
  try {
    await signOn(page, 'Ines Haldane')
    await page.goto('/take/whimbrel')
    await page.getByRole('radio', { name: 'Lighthouse terrace' }).click()
    await expect(page.getByText('This site asks for a certificate of practice first: an assessor sets the exam.')).toBeVisible()
    await expect(page.getByText('This site asks for practice first.')).toBeVisible()
    await audit(page)
    await fits(page)
    await look(page, 'practice-asked')
    await page.getByRole('radio', { name: 'Ice store' }).click()
    await expect(page.getByText('This site asks for practice first.')).toBeHidden()
  } finally {
    await answer('practice.before', 'recommended')
    await answer('practice.absence_days', 90)
  }
})
