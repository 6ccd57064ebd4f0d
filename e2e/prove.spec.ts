import { expect, test } from '@playwright/test'
import { look } from './day'
import { audit, fits, freeTern, openSheet, readyToProve, sizeIt, verdict } from './work'

test.beforeEach(freeTern)

test('a lift outside its limits, the nearest change, and inside again', async ({ page }) => {
  await readyToProve(page)
  await expect(verdict(page)).toContainText('Inside the limits checked')

  // Nobody stands where the load comes; to the side of it they do.
  await openSheet(page, 'Path')
  await page.getByText('Who stands where').click()
  await page.getByRole('button', { name: '+ Slinger' }).click()
  const at = await page.getByRole('slider', { name: 'Set-down point' }).getAttribute('aria-valuetext')
  const [radius_m, slew_deg] = [...(at ?? '').matchAll(/-?\d+(\.\d+)?/g)].map((x) => Number(x[0]))
  const turned = ((slew_deg ?? 0) * Math.PI) / 180
  const stand = async (out_m: number) => {
    await page.getByLabel('Slinger · ahead').fill((out_m * Math.cos(turned)).toFixed(1))
    await page
      .getByLabel('to the left')
      .last()
      .fill((out_m * Math.sin(turned)).toFixed(1))
  }
  await stand(radius_m ?? 0)
  await expect(verdict(page)).toContainText('The slinger stands where the load comes')
  await look(page, 'crew')
  await audit(page)
  await stand((radius_m ?? 0) + 12)
  await expect(verdict(page)).toContainText('Inside the limits checked')
  await expect(page.getByRole('slider', { name: 'Slinger 1' })).toBeVisible()
  await page.getByRole('button', { name: 'Take slinger 1 off' }).click()
  await expect(page.getByRole('slider', { name: 'Slinger 1' })).toHaveCount(0)
  // Whoever steadies the load has a rope as long as it takes to both ends.
  await page.getByRole('button', { name: '+ Tag line' }).click()
  await expect(page.locator('title', { hasText: /^Tag line: at least \d/ })).toHaveCount(1)
  await look(page, 'tag-line')
  await page.getByRole('button', { name: 'Take tag line 1 off' }).click()

  // A side that is not measured is no figure of the others'; slings ask for everything they are judged by.
  await openSheet(page, 'Load')
  const width = page.getByRole('group', { name: 'Its size as it hangs' }).getByLabel('Width')
  await width.fill('')
  await expect(verdict(page)).toContainText('the load’s size is not entered')
  await width.fill('1.5')
  await expect(verdict(page)).toContainText('Inside the limits checked')
  await openSheet(page, 'Slings')
  await page.getByRole('button', { name: 'Check the slings too' }).click()
  await expect(verdict(page)).toContainText(/length of the slings or the spread .* is not entered/)
  await page.getByLabel('Length of a leg').fill('3')
  await page.getByRole('group', { name: 'Between the lift points' }).getByLabel('Along').fill('2')
  await page.getByRole('group', { name: 'Between the lift points' }).getByLabel('Across').fill('1.2')
  await expect(verdict(page)).toContainText('tag')
  await page.getByLabel('Marked on one leg, straight').fill('8000')
  await expect(verdict(page)).toContainText('Inside the limits checked')
  await page.getByLabel('Carried over').fill('1')
  await expect(verdict(page)).toContainText('Not all heights are entered')
  await page.getByLabel('Taken from').fill('0')
  await page.getByLabel('Set down on').fill('0')
  await expect(verdict(page)).toContainText('Inside the limits checked')

  // A heavier load, its ± with it: what the doubt makes of it is said.
  await openSheet(page, 'Load')
  await page.getByLabel('Mass', { exact: true }).first().fill('5200')
  await page.getByLabel('±').first().fill('150')
  await openSheet(page, 'Reading')
  await expect(page.getByRole('heading', { name: 'How sure this is' })).toBeVisible()
  await expect(page.getByText(/Measure the load’s mass better first/)).toBeVisible()
  await audit(page)
  await fits(page)

  // Dragged outwards until it is outside: the map is drawn all the while.
  const point = page.getByRole('slider', { name: 'Set-down point' })
  await point.scrollIntoViewIfNeeded()
  const from = await point.boundingBox()
  const dial = await page.getByRole('group', { name: /Plan of the lift/ }).boundingBox()
  if (!from || !dial) throw new Error('nothing to drag')
  const [cx, cy] = [dial.x + dial.width / 2, dial.y + dial.height / 2]
  const [dx, dy] = [from.x + from.width / 2 - cx, from.y + from.height / 2 - cy]
  await page.mouse.move(cx + dx, cy + dy)
  await page.mouse.down()
  // Beyond what the boom reaches it is held, and why is said; back again it is free.
  await page.mouse.move(cx + dx * 3, cy + dy * 3)
  await expect(page.getByText(/^Held here: this boom at 19.40 m reaches 1\d\.\d\d m\.$/)).toBeVisible()
  await page.mouse.move(cx + dx, cy + dy)
  await expect(page.getByText(/^Held here/)).toHaveCount(0)
  for (let by = 1.05; by < 1.7; by += 0.05) {
    await page.mouse.move(cx + dx * by, cy + dy * by)
    if (await verdict(page).getByText('Outside the limits').isVisible()) break
  }
  await page.mouse.up()
  await expect(verdict(page)).toContainText('Outside the limits')
  const dragged = page.getByRole('button', { name: /Take this change: Work within/ }).first()
  await expect(dragged).toBeVisible()
  // The same lift asked of the yard, its points where they are at this place; what is planned here stays as it is.
  await page.getByRole('button', { name: 'Other stands, other machines' }).click()
  await expect(page.getByLabel('What is lifted')).toBeVisible()
  await page.getByRole('button', { name: 'Ask the yard' }).click()
  const rows = page.getByRole('list', { name: 'Machines of the yard' }).getByRole('listitem')
  await expect(rows).toHaveCount(19)
  // Whoever has it now is told: a machine that is taken is no machine to be had.
  await expect(rows.filter({ hasText: /^Tern / })).toContainText('has Tern at North Quay')
  await page.goBack()
  await expect(verdict(page)).toContainText('Outside the limits')
  await dragged.click()
  await expect(verdict(page)).toContainText(/Inside the limits checked|Near a limit/)

  // Nearer, and the whole of it again.
  await page.mouse.move(cx, cy)
  await page.keyboard.down('Control')
  await page.mouse.wheel(0, -240)
  await page.keyboard.up('Control')
  // And moved about by its ground.
  const seen = () => page.locator('main svg[role=group]').first().getAttribute('viewBox')
  await page.waitForTimeout(400)
  const nearer = await seen()
  await page.mouse.move(cx, cy + 120)
  await page.mouse.down()
  await page.mouse.move(cx + 60, cy + 160, { steps: 4 })
  await page.mouse.up()
  expect(await seen()).not.toBe(nearer)
  await page.getByRole('button', { name: 'The whole' }).click()
  await expect(page.getByRole('button', { name: 'The whole' })).toHaveCount(0)

  // Typed, far outside.
  await openSheet(page, 'Load')
  await page.getByLabel('Mass', { exact: true }).first().fill('7200')
  await page.getByLabel('±').first().fill('')
  await openSheet(page, 'Path')
  await page.getByRole('group', { name: 'S · Set down' }).getByLabel('Radius').fill('14')
  await expect(verdict(page)).toContainText('Outside the limits')
  await expect(verdict(page)).toContainText(/rated|tip|kN|kPa/)
  await audit(page)
  await fits(page)

  const take = page.getByRole('button', { name: /Take this change: Work within/ }).first()
  await expect(take).toBeVisible()
  await take.click()
  await expect(verdict(page)).toContainText(/Inside the limits checked|Near a limit/)
  await expect(page.getByRole('group', { name: 'S · Set down' }).getByLabel('Radius')).not.toHaveValue('14')

  // Beyond the table: not rated, never zero.
  await page.getByRole('group', { name: 'S · Set down' }).getByLabel('Radius').fill('18.5')
  await expect(verdict(page)).toContainText('not rated')

  // A load worked out from its shapes comes with its ±, from the builder here and from a quick sum.
  await page.getByRole('group', { name: 'S · Set down' }).getByLabel('Radius').fill('9')
  await openSheet(page, 'Load')
  await page.getByRole('button', { name: 'From its shapes' }).click()
  const builder = page.getByRole('dialog', { name: 'What does it weigh?' })
  await expect(builder.getByText('1,862 kg ± 102 kg')).toBeVisible()
  await builder.getByRole('button', { name: 'Take it as the load' }).click()
  await expect(page.getByLabel('How the mass is known')).toHaveValue('worked-out')
  await expect(page.getByLabel('Mass', { exact: true }).first()).toHaveValue(/^1861\./)
  // Another load has another size.
  await expect(verdict(page)).toContainText('the load’s size is not entered')
  await sizeIt(page)
  await expect(verdict(page)).toContainText('Inside the limits checked')
  await page.getByRole('link', { name: 'Calculators' }).click()
  await page.getByRole('link', { name: /^Gust at the boom tip/ }).click()
  await page.getByRole('button', { name: 'Use in this lift' }).click()
  await openSheet(page, 'Boom, wind')
  await expect(page.getByLabel('Wind, gust at the boom tip')).toHaveValue(/^1[01]\./)
  await expect(verdict(page)).toContainText('Outside the limits')
  await page.getByLabel('Wind, gust at the boom tip').fill('4')
  await openSheet(page, 'Path')
  await page.getByRole('group', { name: 'S · Set down' }).getByLabel('Radius').fill('18.5')
  await expect(verdict(page)).toContainText('not rated')

  // Recorded as it is, it can only be abandoned.
  await page.getByRole('button', { name: 'Record as it is' }).click()
  await expect(page.getByRole('link', { name: 'Prove it again' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Lifted and landed' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Abandon this lift' }).click()
  await page.getByLabel('Why').fill('Too far out; the float comes closer')
  await page.getByRole('button', { name: 'Record as abandoned' }).click()
  await expect(page.getByText(/Abandoned \d/)).toBeVisible()

  // An unmarked load is not proven until somebody finds out its mass.
  await page.getByRole('link', { name: 'Prove another lift' }).click()
  await openSheet(page, 'Path')
  await page.getByRole('group', { name: 'S · Set down' }).getByLabel('Radius').fill('9')
  await openSheet(page, 'Load')
  await page.getByLabel('What is lifted').selectOption({ label: 'Ice-maker' })
  await expect(page.getByText('Ask: Skarrow Ice Plant', { exact: false })).toBeVisible()
  await expect(verdict(page)).toContainText('Not proven')
  await expect(page.getByText('Weigh it, work it out').first()).toBeVisible()
})
