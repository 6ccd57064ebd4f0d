import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import { isRaised, itemsOf, type Measure, measureLabel, soundReading, type WalkItem } from '@geolabe/core'
import { expect, type Page, test as plain } from '@playwright/test'
import pg from 'pg'
import { readMachineFile } from '../server/src/demo/files'
import { throughOrder } from './order'

const read = (path: string) => JSON.parse(readFileSync(new URL(`../demo/${path}`, import.meta.url), 'utf8'))
export const machine = readMachineFile
export const tern = machine('tern')
export const yard: string[] = read('people/skarrow-haven.json').machines
const people: { name: string; badge: string; demoPin: string }[] = read('people/skarrow-haven.json').people
const all = itemsOf(tern.walkround)
/** What is looked at before the site, and what waits for it. */
export const items = all.filter((x) => !isRaised(x)).map((x) => x.item)
export const raised = all.filter(isRaised).map((x) => x.item)

/** Begins every test with Tern free: no shift open, nothing stopping it. */
export async function freeTern(): Promise<void> {
  const client = new pg.Client({ connectionString: process.env.GEOLABE_OWNER_URL, options: '-c search_path=geolabe' })
  await client.connect()
  await client.query('update shift set closed_at = now() where closed_at is null')
  await client.query(
    "alter table defect disable trigger user; delete from photo; delete from defect_note; alter table defect_step disable trigger user; delete from defect_step where defect in (select id from defect where machine = 'tern' and grade <> 'watch'); alter table defect_step enable trigger user; delete from defect where machine = 'tern' and grade <> 'watch'; alter table defect enable trigger user; delete from throttle; alter table override_use disable trigger user; update override_use set followed_by = by, followed_at = now() where followed_by is null; alter table override_use enable trigger user",
  )
  await client.end()
}

/** What the records hold. */
export async function query<R extends pg.QueryResultRow>(sql: string): Promise<R[]> {
  const client = new pg.Client({ connectionString: process.env.GEOLABE_OWNER_URL, options: '-c search_path=geolabe' })
  await client.connect()
  try {
    return (await client.query<R>(sql)).rows
  } finally {
    await client.end()
  }
}

/** A machine that the demo's own defect stops works again, as if it had been repaired. */
export async function workingAgain(id: string): Promise<void> {
  const client = new pg.Client({ connectionString: process.env.GEOLABE_OWNER_URL, options: '-c search_path=geolabe' })
  await client.connect()
  await client.query('alter table defect disable trigger user')
  await client.query("update defect set grade = 'watch', pending = false where machine = $1", [id])
  await client.query('alter table defect enable trigger user')
  await client.end()
}

/** Somebody else's device beside the test's own; gone with the test. */
export const test = plain.extend<{ openPage: () => Promise<Page> }>({
  openPage: async ({ browser }, use) => {
    const opened: Page[] = []
    await use(async () => {
      const page = await (await browser.newContext()).newPage()
      opened.push(page)
      return page
    })
    for (const page of opened) await page.context().close()
  },
})

export async function signOn(page: Page, name: string): Promise<void> {
  const p = people.find((x) => x.name === name)
  if (!p) throw new Error(`nobody called ${name}`)
  await page.goto('/')
  await page.getByLabel('Badge').fill(p.badge)
  await page.getByLabel('PIN').fill(p.demoPin)
  await page.getByRole('button', { name: 'Sign on', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Yard' })).toBeVisible()
}

export async function takeTern(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Sign on to Tern' }).click()
  await page.getByText('I have read this').click()
  await page.getByRole('radio', { name: 'North Quay' }).click()
  for (const w of [...tern.ppe, ...tern.documents]) await page.getByText(w.label, { exact: true }).click()
  await page.getByRole('button', { name: 'Take Tern, begin the walk-round' }).click()
  await expect(page.getByRole('heading', { name: 'Walk round Tern' })).toBeVisible()
}

/** A reading that is in order, and believable beside the last one on record. */
const ordinary = (item: WalkItem & { measure: Measure }) => (item.id === 'rope' ? 15.49 : soundReading(item.measure))

/** Marks the item that is shown as in order, with its reading where it has one. */
export async function enterInOrder(page: Page, item: WalkItem): Promise<void> {
  await expect(page.getByRole('heading', { name: item.label, exact: true })).toBeVisible()
  const { measure: m } = item
  const field = m && page.getByLabel(measureLabel(m), { exact: true })
  if (m && field && (await field.isVisible())) await field.fill(String(ordinary({ ...item, measure: m })))
  await page.getByRole('button', { name: item.shuts ? 'Shut and latched' : 'In order', exact: true }).click()
}

/** The same by keys alone: one key an item, a reading typed and ended with Enter. */
export async function keyThrough(page: Page, list: readonly WalkItem[]): Promise<void> {
  for (const item of list) {
    await expect(page.getByRole('heading', { name: item.label, exact: true })).toBeVisible()
    const { measure: m } = item
    if (m && (await page.getByText('Measure it today.').isVisible())) {
      await page.keyboard.press('m')
      await expect(page.getByLabel(measureLabel(m), { exact: true })).toBeFocused()
      await page.keyboard.type(String(ordinary({ ...item, measure: m })))
      await page.keyboard.press('Enter')
    } else await page.keyboard.press('o')
  }
}

export async function walkAll(page: Page): Promise<void> {
  // Begun already where the page was opened anew.
  const begin = page.getByRole('button', { name: 'Isolated and tagged, begin' })
  await expect(begin.or(page.getByRole('heading', { name: items[0]?.label ?? '', exact: true }))).toBeVisible()
  if (await begin.isVisible()) await begin.click()
  for (const item of items) await enterInOrder(page, item)
  await page.getByRole('button', { name: 'Finish the walk-round' }).click()
  await expect(page.getByRole('heading', { name: 'Look at North Quay' })).toBeVisible()
}

/** What waited for overhead, people and legs. */
export async function proveRaised(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { name: 'Raised, over its travel' })).toBeVisible()
  for (const item of raised) await enterInOrder(page, item)
  await page.getByRole('button', { name: 'Finish the second part' }).click()
}

/** The same of any machine. */
export async function raisedByHand(page: Page, m: typeof tern): Promise<void> {
  await expect(page.getByRole('heading', { name: 'Raised, over its travel' })).toBeVisible()
  for (const { item } of itemsOf(m.walkround).filter(isRaised)) await enterInOrder(page, item)
  await page.getByRole('button', { name: 'Finish the second part' }).click()
}

/** The round at the end, from the handover. */
export async function walkOnceMore(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Walk round once more' }).click()
  for (const { item } of itemsOf(tern.walkround, 'end-of-shift')) await enterInOrder(page, item)
  await page.getByRole('button', { name: 'Finish the walk-round' }).click()
  await expect(page.getByRole('heading', { name: 'Stow & hand over' })).toBeVisible()
}

export async function lookAtSite(page: Page): Promise<void> {
  for (;;) {
    const next = page.getByRole('button', { name: 'Agree this control' }).first()
    if ((await next.count()) === 0) break
    await next.click()
  }
  await page.getByRole('button', { name: 'Site looked at, on to set-up' }).click()
  await expect(page.getByRole('heading', { name: 'Set up Tern' })).toBeVisible()
}

/** Everything that no figure shows, confirmed on its sheet. */
export async function confirmEvidence(page: Page): Promise<void> {
  const asked = page.getByRole('tabpanel', { name: 'Confirm' }).getByRole('checkbox')
  for (let i = 0; i < (await asked.count()); i++) await asked.nth(i).check({ force: true })
}

/** Opens a sheet by its name. */
export const openSheet = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click()

export async function setUp(page: Page, { again = false } = {}): Promise<void> {
  await openSheet(page, 'Level')
  await page.getByLabel('Along, front high is plus').fill('0.1')
  await page.getByLabel('Across, left high is plus').fill('0')
  await openSheet(page, 'In order')
  await throughOrder(page)
  await page.getByRole('button', { name: 'Record this set-up' }).click()
  // What is proved raised was proved with the first set-up.
  if (!again) await proveRaised(page)
  await expect(page.getByRole('heading', { name: 'Prove the lift' })).toBeVisible()
}

/** What the demo's first load still lacks for a proof. */
export async function measure(page: Page): Promise<void> {
  await openSheet(page, 'Path')
  await page.getByRole('radio', { name: /Measured/ }).click()
  await openSheet(page, 'Boom, wind')
  await page.getByLabel('Wind, gust at the boom tip').fill('4')
}

/** From the sign-on to a first lift inside its limits, on Tern beside the wall. */
export async function readyToProve(page: Page): Promise<void> {
  await signOn(page, 'Ines Haldane')
  await takeTern(page)
  await walkAll(page)
  await lookAtSite(page)
  await setUp(page)
  await measure(page)
}

/** The size of a load as it hangs. */
export async function sizeIt(page: Page): Promise<void> {
  await openSheet(page, 'Load')
  const size = page.getByRole('group', { name: 'Its size as it hangs' })
  for (const [side, metres] of [
    ['Length', '2'],
    ['Width', '1.5'],
    ['Height', '1.2'],
  ] as const)
    await size.getByLabel(side).fill(metres)
}

export const verdict = (page: Page) => page.getByRole('region', { name: 'Verdict' })

/** Goes on inside the app, as a link in it does; what is there is not loaded anew. */
export async function goOn(page: Page, path: string): Promise<void> {
  const before = await page.title()
  await page.evaluate((to) => {
    history.pushState(null, '', to)
    dispatchEvent(new PopStateEvent('popstate'))
  }, path)
  await expect(page).not.toHaveTitle(before)
}

/** Nothing that axe finds, by day; by night what colours decide, which is all that changes. */
export async function audit(page: Page): Promise<void> {
  for (const light of ['day', 'night']) {
    await page.evaluate((l) => {
      document.documentElement.dataset.light = l
    }, light)
    // What is of the last plan has faded on purpose, until the new one is worked out: that is waited for, however slow the machine.
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[aria-busy]')].every(
        (x) => x.getAttribute('aria-busy') === 'false' && getComputedStyle(x).opacity === '1',
      ),
    )
    // No page has frames: what is found in one pass needs no second page to be put together in.
    const axe = new AxeBuilder({ page }).setLegacyMode(true)
    const { violations } = await (light === 'day'
      ? axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
      : axe.withRules(['color-contrast', 'link-in-text-block'])
    ).analyze()
    expect(
      violations.map((v) => `${light} ${v.id}: ${v.nodes.map((n) => `${n.target} ${n.failureSummary}`).join(' | ')}`),
    ).toEqual([])
  }
  await page.evaluate(() => {
    document.documentElement.dataset.light = 'day'
  })
}

/** Fits phone, tablet and desk without sideways scrolling; what is touched is large enough. */
export async function fits(page: Page): Promise<void> {
  const before = page.viewportSize()
  for (const [width, height] of [
    [390, 844],
    [800, 1280],
    [1280, 800],
  ] as const) {
    await page.setViewportSize({ width, height })
    const found = await page.evaluate(() => {
      const wide = document.documentElement.scrollWidth - document.documentElement.clientWidth
      const cut = [...document.querySelectorAll('main *')]
        .filter(
          (e) =>
            e instanceof HTMLElement &&
            e.offsetParent !== null &&
            !e.closest('.sr-only') &&
            e.getBoundingClientRect().right > innerWidth + 1 &&
            !e.closest('.overflow-x-auto'),
        )
        .map((e) => `${e.tagName} ${e.textContent?.slice(0, 40)}`)
      const small = [...document.querySelectorAll('main button, main a, main select, main input:not(.sr-only)')]
        .filter(
          (e) =>
            e instanceof HTMLElement &&
            e.offsetParent !== null &&
            !(e instanceof HTMLInputElement && e.type === 'radio') &&
            getComputedStyle(e).display !== 'inline',
        )
        .filter((e) => e.getBoundingClientRect().height < 47.5)
        .map((e) => `${e.tagName} ${e.textContent?.slice(0, 40)} ${e.getBoundingClientRect().height}`)
      return { wide, cut: cut.slice(0, 5), small: small.slice(0, 5) }
    })
    expect(found, `at ${width}`).toEqual({ wide: 0, cut: [], small: [] })
  }
  if (before) await page.setViewportSize(before)
}

/** A touch takes so long, seconds. */
export const touch_s = 1.5

/**
 * How long a person takes from now on who has never seen these screens: 1.5 s a touch, 2 s a figure or word typed, and every word that comes
 * into sight read once, at 200 a minute. Asked for at the end.
 */
export async function timed(
  page: Page,
): Promise<() => Promise<{ touches: number; typed: number; words: number; seconds: number }>> {
  const counting = () => {
    const kept = JSON.parse(sessionStorage.getItem('reckoned') ?? '{"touches":0,"typed":0,"words":0,"seen":[]}')
    const seen = new Set<string>(kept.seen)
    const keep = () => sessionStorage.setItem('reckoned', JSON.stringify({ ...kept, seen: [...seen] }))
    const read = () => {
      const walker = document.createTreeWalker(document.querySelector('main') ?? document.body, NodeFilter.SHOW_TEXT)
      for (let n = walker.nextNode(); n; n = walker.nextNode()) {
        const text = n.textContent?.trim() ?? ''
        const e = n.parentElement
        const box = e?.getBoundingClientRect()
        if (!e?.checkVisibility() || e.closest('svg, option, .sr-only') || !box || box.bottom < 0 || box.top > innerHeight)
          continue
        // The same sentence with another figure is looked at, not read again.
        const said = text.replace(/[\d.,]+/g, '#')
        if (seen.has(said)) continue
        seen.add(said)
        // Figures change as one works; they are looked at, not read.
        kept.words += text.split(/\s+/).filter((w) => /[a-z]{2}/i.test(w)).length
      }
      keep()
    }
    addEventListener('pointerdown', () => {
      kept.touches++
      read()
    })
    addEventListener(
      'change',
      ({ target }) => {
        if (target instanceof HTMLSelectElement) kept.touches += 2
        if (target instanceof HTMLInputElement && target.type === 'text') kept.typed++
        read()
      },
      true,
    )
    addEventListener('click', () => setTimeout(read, 400))
    // What stands there now is read before something is only tried, and after.
    addEventListener('look', read)
  }
  await page.addInitScript(counting)
  await page.reload()
  return async () => {
    const { touches, typed, words } = await page.evaluate(() => JSON.parse(sessionStorage.getItem('reckoned') ?? '{}'))
    return { touches, typed, words, seconds: touches * touch_s + typed * 2 + (words / 200) * 60 }
  }
}

/** The whole app is kept on the device: file by file, some seconds on a quiet machine, so this wait is as long as that takes on a busy one. */
export async function appOnDevice(page: Page): Promise<void> {
  await page.waitForFunction(async () => (await navigator.serviceWorker.ready).active?.state === 'activated', null, {
    timeout: 120_000,
  })
}
