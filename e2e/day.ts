import type { Machine } from '@geolabe/core'
import { expect, type Page } from '@playwright/test'
import { broughtToSetUp, place, raisedByApi } from './by-api'
import { audit, confirmAll, confirmEvidence, machine, openSheet, query, raisedByHand, signOn, timed, verdict } from './work'

/** One machine from its set-up on: who works it, and how long that took without the walk-round between. */
export interface Day {
  page: Page
  m: Machine
  shift: string
  taken: Awaited<ReturnType<typeof timed>>
  /** Spent looking at what is raised. */
  walked_s: number
  /** Set up and proved with the network cut, and sent once when it is back. */
  cut: boolean
}

/** Kept where `LOOK` says: as on a desk by day, and on a phone by night. */
export async function look(page: Page, name: string): Promise<void> {
  const folder = process.env.LOOK
  if (!folder) return
  await page.screenshot({ path: `${folder}/${name}.png` })
  const desk = page.viewportSize() ?? { width: 1280, height: 800 }
  const light = (to: string) =>
    page.evaluate((v) => {
      document.documentElement.dataset.light = v
    }, to)
  await page.setViewportSize({ width: 390, height: 844 })
  await light('night')
  await page.waitForTimeout(500)
  await page.screenshot({ path: `${folder}/${name}-phone.png` })
  await light('day')
  await page.setViewportSize(desk)
}

/** The app and what it has read are on the device before the network goes. */
async function cutOff(page: Page): Promise<void> {
  await page.waitForFunction(async () => Boolean((await navigator.serviceWorker.ready).active))
  await page.reload()
  await expect(page.getByRole('button', { name: 'Record this set-up' })).toBeVisible()
  await page.waitForTimeout(1500)
  await page.context().setOffline(true)
}

async function backAgain({ page, shift }: Day): Promise<void> {
  await expect(page.getByText('One proof waits for the network.', { exact: false })).toBeVisible()
  const recorded = () =>
    query<{ setups: number; lifts: number }>(
      `select (select count(*)::int from setup where shift = '${shift}') as setups, (select count(*)::int from lift where shift = '${shift}') as lifts`,
    )
  expect(await recorded()).toEqual([{ setups: 0, lifts: 0 }])
  await page.context().setOffline(false)
  await expect(page.getByText('One proof waits for the network.', { exact: false })).toBeHidden({ timeout: 45_000 })
  expect(await recorded()).toEqual([{ setups: 1, lifts: 1 }])
}

/** Signed on, walked round and looked about: the set-up of this machine at this place is open. */
export async function atSetUp(page: Page, id: string, at: string, { cut = false } = {}): Promise<Day> {
  const m = machine(id)
  await signOn(page, 'Ines Haldane')
  const shift = await broughtToSetUp(page, m, place(at))
  await page.goto(`/shifts/${shift}/set-up`)
  await expect(page.getByRole('heading', { name: `Set up ${m.name}` })).toBeVisible()
  if (cut) await cutOff(page)
  return { page, m, shift, taken: await timed(page), walked_s: 0, cut }
}

/** The sheets that every set-up ends with; left open at what nobody can compute. */
export async function closeSetUp(page: Page, steps: Machine['procedures']['setup']): Promise<void> {
  if (steps.length > 0) {
    await openSheet(page, 'In order')
    await confirmAll(page, steps)
  }
  await openSheet(page, 'Confirm')
  await confirmEvidence(page)
}

/** Records the set-up, has looked at what is raised, and begins to prove. */
export async function onToProof(day: Day): Promise<void> {
  const { page, m, shift, taken } = day
  await look(page, `${m.id}-setup`)
  await page.getByRole('button', { name: 'Record this set-up' }).click()
  const before = await taken()
  await expect(page.getByRole('heading', { name: /Raised, over its travel|Prove the l/ })).toBeVisible()
  if (day.cut) await raisedByHand(page, m)
  else {
    await raisedByApi(page, m, shift)
    await page.goto(`/shifts/${shift}/prove`)
  }
  day.walked_s = (await taken()).seconds - before.seconds
}

/** Records the proof, lifts and lands; from the set-up to there in under five minutes, on a machine never seen before. */
export async function liftAndLand(day: Day, steps = day.m.procedures.lift): Promise<void> {
  const { page, m } = day
  await look(page, `${m.id}-prove`)
  await page.getByRole('button', { name: /^Record this proof, on to the/ }).click()
  if (day.cut) await backAgain(day)
  await confirmAll(page, steps)
  await page.getByRole('button', { name: 'Lifted and landed' }).click()
  await expect(page.getByText('No lift is waiting.')).toBeVisible()
  const { touches, typed, words, seconds } = await day.taken()
  const own_s = seconds - day.walked_s
  console.log(`     ${m.id}: ${touches} touches, ${typed} typed, ${words} words: ${Math.round(own_s)} s`)
  expect(own_s).toBeLessThan(300)
}

/** A proof that is inside, with nothing on its screen that shuts somebody out. */
export async function insideAndClear(page: Page): Promise<void> {
  await expect(verdict(page)).toContainText('Inside the limits checked')
  await audit(page)
}

/** What hangs between the load and the hook, slings and all, kilograms. */
export async function addRigging(page: Page, kg: string): Promise<void> {
  await page.getByRole('button', { name: 'Add rigging' }).click()
  await page
    .getByRole('group', { name: /^Also / })
    .getByLabel('Mass', { exact: true })
    .fill(kg)
}

/** Both ends of a lift by radius and slew, measured. */
export async function fromTo(page: Page, from: [string, string], to: [string, string]): Promise<void> {
  await openSheet(page, 'Path')
  for (const [name, [radius, slew]] of [
    ['P · Pick up', from],
    ['S · Set down', to],
  ] as const) {
    const end = page.getByRole('group', { name })
    await end.getByLabel('Radius').fill(radius)
    await end.getByLabel('Slew').fill(slew)
  }
  await page.getByRole('radio', { name: /Measured/ }).click()
}

/** How high the load goes on its way, and how far under the hook its top is. */
export async function heights(page: Page, [taken, over, down, below]: [string, string, string, string]): Promise<void> {
  await openSheet(page, 'Slings')
  await page.getByLabel('Taken from').fill(taken)
  await page.getByLabel('Carried over').fill(over)
  await page.getByLabel('Set down on').fill(down)
  await page.getByLabel('From the hook down to the top of the load').fill(below)
}
