import { readFileSync } from 'node:fs'
import { itemsOf } from '@geolabe/core'
import { expect, test } from '@playwright/test'
import { look } from './day'
import { type Touch, throughOrder } from './order'
import {
  audit,
  fits,
  freeTern,
  items,
  keyThrough,
  lookAtSite,
  measure,
  openSheet,
  raised,
  setUp,
  signOn,
  takeTern,
  tern,
  timed,
  verdict,
  walkAll,
  walkOnceMore,
} from './work'

test.beforeEach(freeTern)

test('a whole shift, as an operator does it', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByText('Demo world')).toBeVisible()
  await audit(page)
  await fits(page)
  await signOn(page, 'Ines Haldane')
  await audit(page)
  await fits(page)

  await page.getByRole('link', { name: 'Sign on to Tern' }).click()
  await expect(page.getByText('Rope is thinning near the drum')).toBeVisible()
  await expect(page.getByText('Sweating at the upper hose fitting')).toBeVisible()
  await audit(page)
  await fits(page)
  await page.goto('/')
  await takeTern(page)
  await audit(page)
  await page.getByRole('button', { name: 'Isolated and tagged, begin' }).click()
  await audit(page)
  await fits(page)
  await page.reload()
  await walkAll(page)

  await audit(page)
  await fits(page)
  await lookAtSite(page)
  const taken = await timed(page)

  // The market wall keeps the left beams in; the table's full setting does not cover that side.
  const outrigger = (name: string) => page.getByRole('region', { name })
  await expect(outrigger('front left leg').getByRole('radio', { name: 'Full' })).toBeDisabled()
  await expect(outrigger('front left leg').getByText('Fish market wall in the way of full with this mat.')).toBeVisible()
  await expect(page.getByText(/lightens first/)).toBeVisible()
  await expect(page.getByText('Crush zone behind the tail.')).toBeVisible()
  await page.getByRole('button', { name: 'Next: front right leg' }).click()
  await expect(outrigger('front right leg')).toBeVisible()
  // The feet on the plan: drawn in and out, never into the wall; what is touched is what the sheet shows.
  await page.getByRole('slider', { name: 'Foot of the rear right leg' }).press('ArrowDown')
  await expect(outrigger('rear right leg').getByRole('radio', { name: 'Middle' })).toBeChecked()
  await page.getByRole('slider', { name: 'Foot of the rear right leg' }).press('ArrowUp')
  await page.getByRole('slider', { name: 'Foot of the front left leg' }).press('ArrowUp')
  await expect(outrigger('front left leg').getByRole('radio', { name: 'Middle' })).toBeChecked()
  await page.getByRole('button', { name: 'Read the level along and across.' }).click()
  await page.getByLabel('Along, front high is plus').fill('2')
  await page.getByLabel('Across, left high is plus').fill('-0.6')
  await expect(page.getByText(/out of level, 0.5° allowed. Work the jacks/)).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: /rear left leg.*up 0\.2\d m/i })).toBeVisible()
  await audit(page)
  await fits(page)
  await setUp(page)

  await expect(verdict(page)).toContainText('Not proven')
  await expect(page.getByText('Read the gauge.').first()).toBeVisible()
  await measure(page)
  await expect(verdict(page)).toContainText('Inside the limits checked')
  await openSheet(page, 'Reading')
  await expect(page.getByRole('region', { name: 'Read from the table' })).toContainText(
    'At P, pick-up12,000 kgAt S, set-down9,300 kgWorst on the path9,300 kg',
  )
  await audit(page)
  await fits(page)
  await page.getByRole('button', { name: 'Record this proof, on to the lift' }).click()

  await expect(page.getByRole('heading', { name: 'Lift: Pump skid' })).toBeVisible()
  await audit(page)
  await fits(page)
  await expect(page.getByRole('button', { name: 'Lifted and landed' })).toBeDisabled()
  await page.getByRole('tab', { name: 'Cautions' }).click()
  await page.getByText('Emergency stop').scrollIntoViewIfNeeded()
  await look(page, 'signals')
  await audit(page)
  await page.getByRole('tab', { name: 'In order' }).click()
  // Somebody is out of sight: whoever was clear is looked for anew.
  const lost = page.getByRole('button', { name: 'Contact lost' })
  await throughOrder(page, undefined, undefined, lost)
  await look(page, 'lift-contact')
  const before = await page.locator('li[aria-current="step"]').first().getAttribute('id')
  await lost.click()
  await expect(lost).toHaveCount(0)
  expect(await page.locator('li[aria-current="step"]').first().getAttribute('id')).not.toBe(before)
  await throughOrder(page)
  await page.getByRole('button', { name: 'Lifted and landed' }).click()
  await expect(page.getByText('No lift is waiting.')).toBeVisible()
  // Two more like it: over four fifths of its rating each is tried again.
  for (const more of [2, 3]) {
    await page.getByRole('button', { name: /^Another like it:/ }).click()
    await expect(page.getByRole('heading', { name: 'Lift: Pump skid' })).toBeVisible()
    await throughOrder(page)
    await page.getByRole('button', { name: 'Lifted and landed' }).click()
    await expect(page.getByText(/^Done \d/)).toHaveCount(more)
  }
  await page.getByRole('link', { name: 'Stow & hand over' }).last().click()

  const walked = await taken()
  await walkOnceMore(page)
  const stowing = await taken()
  await throughOrder(page)
  await page.getByLabel('Crane engine hours').fill('3830')
  await page.getByLabel('Fuel left').fill('55')
  await page.getByLabel('Words for the next person').fill('Left mats by the wall.')
  await audit(page)
  await fits(page)
  await page.getByRole('button', { name: 'Hand over Tern' }).click()
  await expect(page.getByRole('heading', { name: 'Tern, one shift' })).toBeVisible()
  // Set up, three lifts, stowed: beyond one touch an item of its walk-rounds.
  const touches = walked.touches + (await taken()).touches - stowing.touches - raised.length
  console.log(`     tern: ${touches} touches from the site to handed over, three lifts between`)
  expect(touches).toBeLessThan(160)
  await audit(page)
  await fits(page)

  const pdf = await page.request.get((await page.getByRole('link', { name: 'Lift card to print' }).getAttribute('href')) ?? '')
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
  const downloading = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export as a file' }).click()
  const path = await (await downloading).path()
  const file = JSON.parse(readFileSync(path, 'utf8'))
  expect(file.shift.lifts[0].assessment.verdict).toBe('inside')

  await page.getByRole('link', { name: 'Records' }).click()
  await audit(page)
  await page.getByRole('tab', { name: 'From elsewhere' }).click()
  await expect(page.getByText('The person in charge or an administrator takes files in.')).toBeVisible()
  await page.getByRole('tab', { name: 'Journal' }).click()
  await page.getByRole('button', { name: 'Check the chain' }).click()
  await expect(page.getByText(/entries, each as it was written/)).toBeVisible()
  await audit(page)
  await fits(page)

  await page.getByRole('link', { name: 'Yard' }).first().click()
  await page.getByRole('link', { name: 'Sign on to Tern' }).click()
  await expect(page.getByText('“Left mats by the wall.”')).toBeVisible()
})

test('the same shift by keyboard alone', async ({ page }) => {
  const press = (key: string) => page.keyboard.press(key)
  /** Tabs until what is focused has this name. */
  const tabTo = async (name: string | RegExp, back = false) => {
    for (let i = 0; i < 140; i++) {
      const found = await page.evaluate(() => {
        const e = document.activeElement
        if (!e || e === document.body || e.getAttribute('role') === 'tabpanel') return ''
        const labelled =
          e instanceof HTMLInputElement || e instanceof HTMLTextAreaElement || e instanceof HTMLSelectElement
            ? [...(e.labels ?? [])].map((l) => l.textContent).join(' ')
            : ''
        return (e.getAttribute('aria-label') ?? (labelled || (e.textContent ?? ''))).trim()
      })
      if (typeof name === 'string' ? found.startsWith(name) : name.test(found)) return
      await press(back ? 'Shift+Tab' : 'Tab')
    }
    throw new Error(`Tab never reached ${name}`)
  }
  /** Tabs until the focus is in what is touched, and presses it. */
  const byKeys: Touch = async (what) => {
    for (let i = 0; i < 200; i++) {
      if (await what.evaluate((e) => e.contains(document.activeElement))) return press('Space')
      await press('Tab')
    }
    throw new Error('Tab never reached the step')
  }
  /** Opens a sheet: to the list of them, then along it. */
  const sheet = async (name: string) => {
    for (let i = 0; i < 140; i++) {
      if ((await page.evaluate(() => document.activeElement?.getAttribute('role'))) === 'tab') break
      await press('Tab')
    }
    // What is focused moves a moment after the key.
    const focused = () => page.evaluate(() => document.activeElement?.textContent)
    for (let i = 0; i < 8; i++) {
      const was = await focused()
      if (was === name) return expect(page.getByRole('tab', { name, exact: true })).toHaveAttribute('aria-selected', 'true')
      await press('ArrowRight')
      await expect.poll(focused).not.toBe(was)
    }
    throw new Error(`no sheet ${name}`)
  }
  await page.goto('/')
  await expect(page.getByText('Demo world')).toBeVisible()
  await tabTo('Badge')
  await page.keyboard.type('1041')
  await press('Tab')
  await page.keyboard.type('2750')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Yard' })).toBeVisible()
  await tabTo('Sign on to Tern')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Sign on to Tern' })).toBeVisible()
  await tabTo('I have read this')
  await press('Space')
  for (const w of [...tern.ppe, ...tern.documents]) {
    await tabTo(w.label)
    await press('Space')
  }
  await tabTo('Take Tern')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Walk round Tern' })).toBeVisible()
  await tabTo('Isolated and tagged')
  await press('Enter')
  await keyThrough(page, items)
  await tabTo('Finish the walk-round')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Look at North Quay' })).toBeVisible()
  for (let i = 0; i < 5; i++) {
    await tabTo('Agree this control')
    await press('Enter')
  }
  await tabTo('Site looked at')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Set up Tern' })).toBeVisible()
  await sheet('Level')
  await tabTo('Along, front high is plus')
  await page.keyboard.type('0,1')
  await tabTo('Across, left high is plus')
  await page.keyboard.type('0')
  await sheet('In order')
  await throughOrder(page, byKeys)
  await tabTo('Record this set-up')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Raised, over its travel' })).toBeVisible()
  await keyThrough(page, raised)
  await tabTo('Finish the second part')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Prove the lift' })).toBeVisible()
  await tabTo('Set-down point')
  const before = await page.getByRole('slider', { name: 'Set-down point' }).getAttribute('aria-valuetext')
  await press('ArrowDown')
  await press('Shift+ArrowLeft')
  const after = await page.getByRole('slider', { name: 'Set-down point' }).getAttribute('aria-valuetext')
  expect([before, after]).toEqual(['radius 9.00 m, slew 300.0°', 'radius 8.90 m, slew 310.0°'])
  await sheet('Path')
  await tabTo(/^Worked outbend not known/)
  await press('ArrowRight')
  await expect(page.getByRole('radio', { name: /^Measured/ })).toBeFocused()
  await press('Space')
  await sheet('Boom, wind')
  await tabTo('Wind, gust at the boom tip')
  await page.keyboard.type('4')
  await expect(verdict(page)).toContainText('Inside the limits checked')
  await tabTo('Record this proof')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Lift: Pump skid' })).toBeVisible()
  await throughOrder(page, byKeys)
  await tabTo('Lifted and landed')
  await press('Enter')
  await expect(page.getByText('No lift is waiting.')).toBeVisible()
  await tabTo(/^Stow & hand over$/)
  await press('Enter')
  await tabTo('Walk round once more')
  await press('Enter')
  await keyThrough(
    page,
    itemsOf(tern.walkround, 'end-of-shift').map((x) => x.item),
  )
  await tabTo('Finish the walk-round')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Stow & hand over' })).toBeVisible()
  await throughOrder(page, byKeys)
  await tabTo('Crane engine hours')
  await page.keyboard.type('3835')
  await tabTo('Hand over Tern')
  await press('Enter')
  await expect(page.getByRole('heading', { name: 'Tern, one shift' })).toBeVisible()
})
