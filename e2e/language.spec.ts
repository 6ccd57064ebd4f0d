import { readdirSync, readFileSync } from 'node:fs'
import { calculators } from '@geolabe/core'
import { expect, type Page, test } from '@playwright/test'
import { broughtToSetUp, place, raisedByApi, setUpByApi } from './by-api'
import { freeTern, goOn, machine, signOn } from './work'

const demo = new URL('../demo/', import.meta.url)

/** Every word that is data: names, places, walk-rounds, tables as somebody wrote them. They stay as they are in any language. */
function dataWords(): string[] {
  const found = new Set<string>()
  const through = (v: unknown): void => {
    if (typeof v === 'string') found.add(v)
    else if (v && typeof v === 'object')
      for (const [name, x] of Object.entries(v)) {
        found.add(name)
        through(x)
      }
  }
  for (const f of readdirSync(demo, { recursive: true, encoding: 'utf8' }).filter((x) => x.endsWith('.json')))
    through(JSON.parse(readFileSync(new URL(f, demo), 'utf8')))
  // An order of work is written once for several alike: as it stands on the machine.
  for (const f of readdirSync(new URL('machines/', demo))) through(machine(f.replace('.json', '')).procedures)
  for (const c of calculators) through(c.example)
  // What other tests have typed into the same yard.
  through(['Found with no signal', 'New slingers until the spring.'])
  for (const id of [...found]) found.add(id.replaceAll('-', ' '))
  return [...found].filter((s) => /\p{L}{2}/u.test(s)).sort((a, b) => b.length - a.length)
}
const data = dataWords().map((s) => s.toLowerCase())
/** Units, dates, clock times, and what is written the same everywhere. */
const figures =
  /\d|(?:kg|kN|kPa|MPa|kNm|Nm|mm|cm³|m²|m³|m\/s²?|kV|°C?)\b|\b(?:m|s|t|h|N|V|x|y|z|g|e)\b|\b(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun)[a-z]*\b|\b(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Sept|Oct|Nov|Dec)[a-z]*\b|Geolabe/gi

/** What of a text is neither marked as said in the language, nor data, nor a figure. */
function left(text: string): string {
  let rest = text.toLowerCase()
  for (const d of data) if (rest.includes(d)) rest = rest.replaceAll(d, ' ')
  return /\p{L}{3}/u.test(rest.replace(figures, ' ')) ? text : ''
}

/** Every text that can be seen or is read out, and is not in the made-up language. */
async function unsaid(page: Page): Promise<string[]> {
  const texts = await page.evaluate(() => {
    const out: string[] = []
    const is = (s: string | null) => s !== null && /\p{L}{3}/u.test(s) && !/[⟦⟧áéíóúýÁÉÍÓÚÝ]/.test(s)
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    for (let n = walker.nextNode(); n; n = walker.nextNode()) {
      const parent = n.parentElement
      if (parent?.closest('script, style, noscript, [translate=no]') || !parent?.checkVisibility()) continue
      if (is(n.textContent)) out.push(n.textContent?.trim() ?? '')
    }
    for (const e of document.querySelectorAll(
      ':not([translate=no])[aria-label], :not([translate=no])[title], [placeholder], [aria-valuetext]',
    ))
      for (const a of ['aria-label', 'title', 'placeholder', 'aria-valuetext'])
        if (is(e.getAttribute(a))) out.push(`${a}: ${e.getAttribute(a)}`)
    return out
  })
  return [...new Set(texts)].filter((s) => left(s.replace(/^(aria-label|title|placeholder|aria-valuetext): /, '')) !== '')
}

test.beforeEach(freeTern)

test('every sentence is in the catalogue, and screens hold with longer ones', async ({ page }) => {
  await signOn(page, 'Ines Haldane')
  const shift = await broughtToSetUp(page, machine('tern'), place('north-quay'))
  await page.evaluate(() => localStorage.setItem('geolabe.language', 'en-XA'))
  const wrong: string[] = []
  const look = async (where: string) => {
    await page.waitForTimeout(400)
    for (const s of await unsaid(page)) wrong.push(`${where}: ${s}`)
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)
    if (wide > 0) wrong.push(`${where}: ${wide} px too wide`)
  }
  const through = async (path: string) => {
    await look(path)
    for (const tab of await page.getByRole('tab').all()) {
      await tab.click()
      await look(`${path} ${await tab.textContent()}`)
    }
  }
  const open = async (path: string) => {
    await page.goto(path)
    await page.getByText('⟦').first().waitFor()
    await page.waitForLoadState('networkidle')
    await through(path)
  }
  for (const path of [
    '/',
    '/take/heron',
    '/defects',
    '/defects?raise=heron',
    '/due',
    '/places/net-loft-yard',
    '/people',
    '/policies',
    '/records',
    '/tables',
    '/tables/tern',
    '/machines/tern',
    '/calculators',
    '/help',
    '/practice',
    '/practice/five',
    '/practice/progress',
    '/practice/exams',
    '/practice/certificates',
    '/practice/tern',
    '/practice/tern/judgement',
    '/practice/tern/signals',
    '/practice/whimbrel/driving',
    '/practice/tern/order',
  ])
    await open(path)
  await page.goto('/places/net-loft-yard')
  await page.getByRole('button', { name: /sk th/ }).click()
  await page.getByRole('listitem').nth(15).waitFor()
  await look('the yard asked')
  await page.keyboard.press('?')
  await look('help')
  for (const c of calculators) {
    await goOn(page, `/calculators/${c.name}`)
    await through(`/calculators/${c.name}`)
  }
  await open(`/shifts/${shift}/site`)
  await open(`/shifts/${shift}/set-up`)
  await setUpByApi(page, machine('tern'), place('north-quay'), shift)
  await raisedByApi(page, machine('tern'), shift)
  await open(`/shifts/${shift}/prove`)
  await open(`/shifts/${shift}/stow`)
  console.log(wrong.join('\n'))
  expect(wrong).toEqual([])
})
