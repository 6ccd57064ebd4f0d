import { randomUUID } from 'node:crypto'
import type { MachineChoices } from '@geolabe/contract'
import { expect, type Page } from '@playwright/test'
import { broughtToSetUp, inOrderByApi, place, post, raisedByApi } from './by-api'
import { look } from './day'
import { audit, freeTern, machine, openSheet, signOn, test } from './work'

test.beforeEach(freeTern)

const answers = (page: Page) => page.getByRole('list', { name: 'Machines of the yard' }).getByRole('listitem')

test('which machine of the yard: each proved where it would stand, barred ones named, another stand looked for', async ({
  page,
}) => {
  await signOn(page, 'Ines Haldane')
  await page.getByRole('link', { name: 'Places', exact: true }).click()
  await page.getByLabel('Place', { exact: true }).selectOption({ label: 'Net loft yard' })
  await expect(page).toHaveURL(/net-loft-yard/)
  const what = page.getByLabel('What is lifted')
  await what.selectOption({ label: await what.locator('option', { hasText: /bale/i }).first().innerText() })
  for (const [group, x, y, height] of [
    ['P, where it is', '16', '6', '0'],
    ['S, where it goes', '30', '6', '3'],
  ] as const) {
    const end = page.getByRole('group', { name: group })
    await end.getByLabel('x', { exact: true }).fill(x)
    await end.getByLabel('y', { exact: true }).fill(y)
    await end.getByLabel('Height', { exact: true }).fill(height)
  }
  await page.getByLabel('Wind, gust expected at the load').fill('3')
  await page.getByRole('button', { name: 'Ask the yard' }).click()
  await expect(answers(page).first()).toContainText('Cormorant')
  // Every machine answers: those that cannot say why.
  await expect(answers(page)).toHaveCount(19)
  await expect(answers(page).filter({ hasText: 'Dipper' })).toContainText('It hangs under its own beam')
  await expect(answers(page).filter({ hasText: 'Dunlin' })).toContainText('rated over 1,600 kg')
  await look(page, 'which-machine')
  await audit(page)
  await page.getByRole('radio', { name: 'Least work' }).click()
  await expect(answers(page).first()).toContainText(/Puffin|Whimbrel/)
  await answers(page)
    .filter({ hasText: /^Tern / })
    .getByRole('button')
    .first()
    .click()
  await page.getByRole('button', { name: 'Look for other stands' }).click()
  await expect(page.getByLabel('Stands that were found, the nearest first')).toBeVisible({ timeout: 20_000 })
  await look(page, 'which-position')
})

test('two machines at one place: who would meet, and who waits', async ({ page }) => {
  await signOn(page, 'Ines Haldane')
  const at = place('net-loft-yard')
  const load = at.loads.find((l) => l.id === 'net-lead')
  const wanted = (from: [number, number], to: [number, number]) => ({
    wanted: {
      format: 'geolabe.wanted/1',
      hung: {
        load: {
          name: load?.label,
          mass_kg: 900,
          massSource: 'marked',
          windArea_m2: 0.4,
          dragCoefficient: 1.2,
          size: { length_m: 0.8, width_m: 0.8, height_m: 0.8 },
        },
        rigging: [],
        rigging_height_m: 0.6,
      },
      from: { x_m: from[0], y_m: from[1], height_m: 0 },
      to: { x_m: to[0], y_m: to[1], height_m: 0 },
      over_m: 0.5,
    },
    conditions: { wind_mps: 2 },
  })
  const headers = { 'x-geolabe': '1' }
  for (const [id, from, to] of [
    ['cormorant', [16, 4], [30, 6]],
    ['heron', [16, 5], [8, 6]],
  ] as const) {
    const asked = await page.request.post(`/api/places/${at.id}/which-machine`, {
      data: wanted([...from], [...to]),
      headers,
    })
    const { answers } = (await asked.json()) as MachineChoices
    const best = answers.find((a) => a.machine.id === id)?.best
    expect(best?.assessment.verdict, id).toBe('inside')
    const m = machine(id)
    const shift = await broughtToSetUp(page, m, at)
    const setup = randomUUID()
    await inOrderByApi(page, m, shift, 'setup', best?.way.setup)
    await post(page, `/shifts/${shift}/setups`, { id: setup, plan: best?.way.setup })
    await raisedByApi(page, m, shift)
    await post(page, `/shifts/${shift}/lifts`, {
      id: randomUUID(),
      setup,
      plan: best?.way.lift,
      conditions: { wind_mps: 2 },
    })
  }
  await page.goto(`/places/${at.id}?tab=now`)
  const pairs = page.getByRole('list', { name: 'Pairs of machines' })
  await expect(pairs).toContainText('Cormorant and Heron')
  await expect(pairs).toContainText(/would meet|come too near/)
  await expect(pairs).toContainText('waits with its load at')
  await look(page, 'at-work')
  await audit(page)
  await openSheet(page, 'Which machine')
})

test('a place is drawn by one and counts once a second person has seen it there', async ({ page, openPage }) => {
  await signOn(page, 'Tomas Brekke')
  await page.goto('/places/lighthouse-terrace?tab=draw')
  await page.getByLabel('Draw something new').selectOption({ label: 'Wall, building or other thing' })
  const plan = page.getByRole('group', { name: /from above: touch a thing/ })
  const box = await plan.boundingBox()
  await plan.click({ position: { x: (box?.width ?? 0) * 0.55, y: (box?.height ?? 0) * 0.5 } })
  await page.getByLabel('Its name').fill('Lantern crate')
  await page.getByRole('textbox', { name: 'Height', exact: true }).fill('2.4')
  // Dragged, moved by the keys, and put right by number.
  const corner = page.getByRole('button', { name: 'Corner 1 of 4' })
  const at = await corner.boundingBox()
  const [x, y] = [(at?.x ?? 0) + (at?.width ?? 0) / 2, (at?.y ?? 0) + (at?.height ?? 0) / 2]
  await page.getByText(/^Corners by number/).click()
  const first = page.getByLabel('x 1', { exact: true })
  const before = await first.inputValue()
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x - 25, y, { steps: 4 })
  await page.mouse.up()
  await expect(first).not.toHaveValue(before)
  const dragged = Number(await first.inputValue())
  await corner.focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect.poll(async () => Number(await first.inputValue())).toBeCloseTo(dragged + 1, 6)
  await page.getByLabel('x 1', { exact: true }).fill('3')
  await page.getByRole('button', { name: 'New corner after corner 2' }).press('Enter')
  await expect(page.getByRole('button', { name: 'Corner 5 of 5' })).toBeVisible()
  await page.getByRole('button', { name: 'Corner 3 of 5' }).focus()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('button', { name: 'Corner 4 of 4' })).toBeVisible()
  await look(page, 'place-draw')
  await audit(page)
  await page.getByRole('button', { name: 'Done with it' }).click()
  await expect(page.getByRole('list', { name: 'What is changed' })).toContainText('Lantern crate added')
  // An edge without its depth is not sent; what is entered outlives the page.
  await page.getByLabel('Draw something new').selectOption({ label: 'Edge that drops away' })
  await plan.click({ position: { x: (box?.width ?? 0) * 0.4, y: (box?.height ?? 0) * 0.8 } })
  await expect(page.getByText('Say how deep this edge drops.').first()).toBeVisible()
  await expect(page.getByRole('button', { name: 'Send it to be checked' })).toBeDisabled()
  await page.waitForTimeout(300)
  await page.reload()
  await page.getByLabel('What is drawn').selectOption({ label: 'Edge that drops away' })
  await page.getByRole('button', { name: 'Take it off' }).click()
  await page.getByLabel('Why it is drawn anew').fill('A crate stands on the terrace')
  await page.getByRole('button', { name: 'Send it to be checked' }).click()
  const waits = (p: Page) => p.getByRole('region', { name: 'Waits for a second person' })
  await expect(waits(page)).toContainText('Tomas Brekke')
  await expect(waits(page).getByRole('button', { name: 'Seen there: it is so' })).toHaveCount(0)

  const wil = await openPage()
  await signOn(wil, 'Wilhelmina Osei')
  await wil.goto('/places/lighthouse-terrace?tab=draw')
  await expect(waits(wil)).toContainText('Lantern crate added')
  await waits(wil).getByLabel('What was seen there').fill('Walked round it')
  await look(wil, 'place-check')
  await waits(wil).getByRole('button', { name: 'Seen there: it is so' }).click()
  await expect(waits(wil)).toHaveCount(0)
  await wil.getByLabel('What is drawn').selectOption({ label: 'Lantern crate' })
  // As it was before, for whoever comes next.
  await wil.getByRole('button', { name: 'Take it off' }).click()
  await wil.getByLabel('Why it is drawn anew').fill('The crate is gone')
  await wil.getByRole('button', { name: 'Send it to be checked' }).click()
  const mirela = await openPage()
  await signOn(mirela, 'Mirela Quist')
  await mirela.goto('/places/lighthouse-terrace?tab=draw')
  await expect(waits(mirela)).toContainText('Lantern crate taken off')
  await waits(mirela).getByRole('button', { name: 'Seen there: it is so' }).click()
  await expect(mirela.getByText(/drawn before: 2/)).toBeVisible()
})
