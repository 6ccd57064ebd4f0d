import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import { isRaised, itemsOf, type Measure, measureLabel, soundReading, type WalkItem } from '@geolabe/core'
import { type Browser, expect, type Page } from '@playwright/test'
import pg from 'pg'
import { readMachineFile } from '../server/src/demo/files'

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

export async function openPage(browser: Browser): Promise<Page> {
  return (await browser.newContext()).newPage()
}

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

export async function confirmAll(page: Page, steps: { label: string }[]): Promise<void> {
  for (const s of steps) await page.getByText(s.label, { exact: true }).click()
}

/** Opens a sheet by its name. */
export const openSheet = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click()

export async function setUp(page: Page, { again = false } = {}): Promise<void> {
  await openSheet(page, 'Level')
  await page.getByLabel('Along, front high is plus').fill('0.1')
  await page.getByLabel('Across, left high is plus').fill('0')
  await openSheet(page, 'In order')
  await confirmAll(page, tern.procedures.setup)
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

/** Nothing that axe finds, in day and in night. */
export async function audit(page: Page): Promise<void> {
  for (const light of ['day', 'night']) {
    await page.evaluate((l) => {
      document.documentElement.dataset.light = l
    }, light)
    const { violations } = await new AxeBuilder({ page })
      .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
      .analyze()
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
