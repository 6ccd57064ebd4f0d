// `npm run screenshots`: the main views from the demo data, into docs/screenshots. Looked at by a person after each run.
import { execFileSync } from 'node:child_process'
import { copyFileSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { isRaised, itemsOf, measureLabel, soundReading } from '@geolabe/core'
import { chromium } from '@playwright/test'
import { throughOrder } from '../e2e/order'
import { readMachineFile } from '../server/src/demo/files'
import { ensureChromium, root } from './environment.mjs'
import { openWorld } from './world.mjs'

ensureChromium()
const world = await openWorld()
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
const tern = readMachineFile('tern')
const all = itemsOf(tern.walkround)
const items = all.filter((x) => !isRaised(x)).map((x) => x.item)
const raised = all.filter(isRaised).map((x) => x.item)
const people = JSON.parse(readFileSync(join(root, 'demo/people/skarrow-haven.json'), 'utf8')).people

async function open(name, options = {}) {
  const context = await browser.newContext({
    baseURL: world.url,
    locale: 'en-GB',
    viewport: { width: 1280, height: 800 },
    ...options,
  })
  const page = await context.newPage()
  await page.goto('/')
  await page.getByText('Demo world').waitFor()
  const p = people.find((x) => x.name === name)
  if (p) {
    await page.getByLabel('Badge').fill(p.badge)
    await page.getByLabel('PIN').fill(p.demoPin)
    await page.getByRole('button', { name: 'Sign on', exact: true }).click()
    await page.getByRole('heading', { name: 'Yard' }).waitFor()
  }
  return page
}
const shoot = async (page, name, options = {}) => {
  await page.waitForTimeout(700)
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`), ...options })
}
const light = (page, l) =>
  page.evaluate((v) => {
    document.documentElement.dataset.light = v
  }, l)
const sheet = (page, name) => page.getByRole('tab', { name, exact: true }).click()
const phone = { width: 390, height: 844 }
const desk = { width: 1280, height: 800 }

try {
  const page = await open('Ines Haldane')
  await shoot(page, 'yard')
  await page.getByRole('link', { name: 'Sign on to Tern' }).click()
  await page.getByText('I have read this').click()
  await page.getByRole('radio', { name: 'North Quay' }).click()
  for (const w of [...tern.ppe, ...tern.documents]) await page.getByText(w.label, { exact: true }).click()
  await page.getByRole('button', { name: /Take Tern/ }).click()
  await page.getByRole('button', { name: /Isolated and tagged/ }).click()
  const mark = async (item) => {
    await page.getByRole('heading', { name: item.label, exact: true }).waitFor()
    const m = item.measure
    const reading = item.id === 'rope' ? 15.4 : m && soundReading(m)
    if (m && (await page.getByText('Measure it today.').isVisible())) {
      await page.getByLabel(measureLabel(m), { exact: true }).fill(String(reading))
    }
    await page.getByRole('button', { name: item.shuts ? 'Shut and latched' : 'In order', exact: true }).click()
  }
  const rope = items.findIndex((i) => i.id === 'rope')
  for (const item of items.slice(0, rope)) await mark(item)
  const anyway = page.getByRole('button', { name: 'Measure it anyway' })
  if (await anyway.isVisible()) await anyway.click()
  await page.getByLabel('Diameter across two strands').fill('15.4')
  await shoot(page, 'walk-round')
  await page.setViewportSize(phone)
  await light(page, 'night')
  await shoot(page, 'walk-round-phone-night')
  await light(page, 'day')
  await page.setViewportSize(desk)
  for (const item of items.slice(rope)) await mark(item)
  await page.getByRole('button', { name: 'Finish the walk-round' }).click()
  await page.getByRole('heading', { name: 'Look at North Quay' }).waitFor()
  await page.getByRole('button', { name: 'Agree this control' }).first().click()
  while ((await page.getByRole('button', { name: 'Agree this control' }).count()) > 0)
    await page.getByRole('button', { name: 'Agree this control' }).first().click()
  await page.getByRole('button', { name: /on to set-up/ }).click()
  await shoot(page, 'set-up')
  await sheet(page, 'Level')
  await page.getByLabel('Along, front high is plus').fill('0.1')
  await page.getByLabel('Across, left high is plus').fill('0')
  await sheet(page, 'In order')
  await page.getByRole('button', { name: 'I looked: it stands like this' }).click()
  for (let n = 0; n < 5; n++) {
    await page.waitForTimeout(700)
    await page.locator('li[aria-current="step"] label').first().click()
  }
  await page.waitForTimeout(800)
  await shoot(page, 'order')
  await throughOrder(page)
  await page.getByRole('button', { name: 'Record this set-up' }).click()
  for (const item of raised) await mark(item)
  await page.getByRole('button', { name: 'Finish the second part' }).click()
  await sheet(page, 'Path')
  await page.getByRole('radio', { name: /Measured/ }).click()
  await sheet(page, 'Boom, wind')
  await page.getByLabel('Wind, gust at the boom tip').fill('4')
  await sheet(page, 'Load')
  await page.getByLabel('±', { exact: true }).first().fill('120')
  await page.waitForTimeout(1500)
  await shoot(page, 'prove')
  const set = page.getByRole('group', { name: 'S · Set down' }).getByLabel('Radius')
  await sheet(page, 'Path')
  await set.fill('12.5')
  await sheet(page, 'Load')
  await page.getByLabel('Mass', { exact: true }).first().fill('5600')
  await page
    .getByRole('button', { name: /Take this change/ })
    .first()
    .waitFor()
  await page.evaluate(() => scrollTo(0, 0))
  await light(page, 'night')
  await page.waitForTimeout(1200)
  await shoot(page, 'prove-outside-night')
  await light(page, 'day')
  await page
    .getByRole('button', { name: /Take this change/ })
    .first()
    .click()
  await sheet(page, 'Path')
  await set.fill('9')
  await sheet(page, 'Load')
  await page.getByLabel('Mass', { exact: true }).first().fill('2850')
  await page.getByLabel('±', { exact: true }).first().fill('')
  await page.getByRole('button', { name: 'Record this proof, on to the lift' }).click()
  await page.getByRole('tab', { name: 'In order' }).waitFor()
  await throughOrder(page)
  await page.getByRole('button', { name: 'Lifted and landed' }).click()
  await page.getByText('No lift is waiting.').waitFor()
  await page.getByRole('link', { name: 'Stow & hand over' }).last().click()
  await page.getByRole('button', { name: 'Walk round once more' }).click()
  for (const { item } of itemsOf(tern.walkround, 'end-of-shift')) await mark(item)
  await page.getByRole('button', { name: 'Finish the walk-round' }).click()
  await page.getByRole('heading', { name: 'Stow & hand over' }).waitFor()
  await page.getByRole('button', { name: 'I looked: it stands like this' }).click()
  await page.getByText('Boom fully in', { exact: true }).click()
  await page.getByText('Hook up, short of its stop', { exact: true }).click()
  await page.getByLabel('Crane engine hours').fill('3828')
  await page.getByLabel('Where it stands').fill('the open end of the quay')
  await page.getByLabel('Left as: outriggers, forks, boom').fill('outriggers in and pinned, boom in its rest')
  await page.getByLabel('Words for the next person').fill('Pump skid landed. Mats stacked by the wall.')
  await sheet(page, 'What the next person will read')
  await shoot(page, 'stow')

  const tomas = await open('Tomas Brekke')
  await tomas.goto('/defects?raise=dunlin')
  await tomas.getByLabel('Where on the machine').fill('Left fork')
  await tomas.getByLabel('What is wrong').fill('Stop pin of the left fork lifts out by hand')
  await tomas.getByRole('button', { name: /from above/ }).click({ position: { x: 420, y: 70 } })
  await tomas.getByLabel(/Danger to people/).check()
  await tomas.getByRole('button', { name: 'Enter it and stop the machine' }).click()
  await tomas.getByRole('heading', { name: /^Raised/ }).waitFor()
  const wil = await open('Wilhelmina Osei')
  await wil.goto(tomas.url())
  await wil.getByText('Your part: acknowledge').waitFor()
  await shoot(wil, 'defect')
  await wil.getByRole('link', { name: 'Due', exact: true }).click()
  await wil.getByRole('heading', { name: 'Charge and refuel' }).waitFor()
  await shoot(wil, 'what-falls-due')
} finally {
  await browser.close()
  world.close()
}

// The hoists and booms, and what is asked of a place, are shot by their own browser tests, which bring each to where it is worth a picture.
const shots = mkdtempSync(join(tmpdir(), 'shots-'))
const which = 'gannet|cormorant|godwit|kittiwake|fulmar|which machine|load control|judged|hand signals'
execFileSync('npm', ['run', '-s', 'e2e', '--', 'hoists-and-booms', 'places', 'practice', '-g', which], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, LOOK: shots },
})
for (const [shot, name] of Object.entries({
  'gannet-prove': 'prove-straddle',
  'cormorant-prove': 'prove-tower',
  'godwit-prove': 'prove-grid',
  'kittiwake-prove': 'prove-crawler',
  'fulmar-prove': 'prove-gantry',
  'which-machine': 'which-machine',
  'practice-going': 'practice',
  'practice-stand': 'practice-judgement',
  'practice-driving': 'practice-driving',
}))
  copyFileSync(join(shots, `${shot}.png`), join(root, 'docs/screenshots', `${name}.png`))
rmSync(shots, { recursive: true })
