import type { Machine } from '@geolabe/core'
import { expect, type Locator, type Page } from '@playwright/test'
import { broughtToSetUp, onceMoreByApi, place, raisedByApi, secondPerson } from './by-api'
import { throughOrder } from './order'
import {
  appOnDevice,
  audit,
  confirmEvidence,
  machine,
  openSheet,
  query,
  raisedByHand,
  signOn,
  timed,
  touch_s,
  verdict,
} from './work'

/** One machine from its set-up on: who works it, and how long that took without the walk-round between. */
export interface Day {
  page: Page
  m: Machine
  shift: string
  taken: Awaited<ReturnType<typeof timed>>
  /** Spent looking at what is raised. */
  walked_s: number
  /** Spent on the order of work, its touches and its acts: the hands are on the machine meanwhile. */
  ordered_s: number
  ordered: number
  acts: number
  /** Touches spared by telling several acts in one. */
  spared: number
  /** Spent on what is tried only to see it refused, and put back; and its touches. */
  aside_s: number
  aside: number
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
  await appOnDevice(page)
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
export async function openSetUp(page: Page, id: string, at: string): Promise<Pick<Day, 'm' | 'shift'>> {
  const m = machine(id)
  await signOn(page, 'Ines Haldane')
  const shift = await broughtToSetUp(page, m, place(at))
  await page.goto(`/shifts/${shift}/set-up`)
  await expect(page.getByRole('heading', { name: `Set up ${m.name}` })).toBeVisible()
  return { m, shift }
}

/** The same, counted from here on. */
export async function atSetUp(page: Page, id: string, at: string, { cut = false } = {}): Promise<Day> {
  const { m, shift } = await openSetUp(page, id, at)
  if (cut) await cutOff(page)
  return {
    page,
    m,
    shift,
    taken: await timed(page),
    walked_s: 0,
    ordered_s: 0,
    ordered: 0,
    acts: 0,
    spared: 0,
    aside_s: 0,
    aside: 0,
    cut,
  }
}

/** The order of work at a station: at the machine, so that it is counted by itself. */
export async function inOrder(day: Day, until?: Locator): Promise<void> {
  await look(day.page, `${day.m.id}-order-${day.ordered}`)
  const before = await day.taken()
  const { acts, told } = await throughOrder(day.page, undefined, secondPerson, until)
  day.acts += acts
  day.spared += acts - told
  const after = await day.taken()
  day.ordered_s += after.seconds - before.seconds
  day.ordered += after.touches - before.touches
}

/** Something tried only to see it refused, and put back as it was. */
export async function aside(day: Day, tried: () => Promise<void>): Promise<void> {
  const look = () => day.page.evaluate(() => dispatchEvent(new Event('look')))
  await look()
  const before = await day.taken()
  await tried()
  await look()
  const after = await day.taken()
  day.aside_s += after.seconds - before.seconds
  day.aside += after.touches - before.touches
}

/** The sheets that every set-up ends with; left open at what nobody can compute. */
export async function closeSetUp(day: Day): Promise<void> {
  const { page } = day
  await openSheet(page, 'In order')
  await inOrder(day)
  // Where the walk-round has seen to everything nothing is owed any more.
  if (day.m.evidence.every((e) => e.walked)) return
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

/** From the set-up of a machine never seen before to its first lift, beside the order of work; and each act of that, read and told. */
const [first_lift_s, act_s] = [300, 5.5]

/** Records the proof, lifts and lands; its order counted in where the whole first lift is to be within its time. */
export async function liftAndLand(
  day: Day,
  { whole = false, first }: { whole?: boolean; first?: () => Promise<void> } = {},
): Promise<void> {
  const { page, m } = day
  await look(page, `${m.id}-prove`)
  await page.getByRole('button', { name: /^Record this proof, on to the/ }).click()
  if (day.cut) await backAgain(day)
  await first?.()
  await inOrder(day)
  // Counted with the touch that records it, and not with the screen that comes after: whether that is read yet is chance.
  const before = await day.taken()
  const { typed, words } = before
  const [touches, seconds] = [before.touches + 1, before.seconds + touch_s]
  await page.getByRole('button', { name: 'Lifted and landed' }).click()
  await expect(page.getByText('No lift is waiting.')).toBeVisible()
  const own_s = seconds - day.walked_s - day.ordered_s
  console.log(
    `     ${m.id}: ${touches} touches (${day.ordered} of them for ${day.acts} acts of its order), ${typed} typed, ${words} words: ${Math.round(own_s)} s beside its order, ${Math.round(day.ordered_s)} s in it${day.aside_s > 0 ? `; ${Math.round(day.aside_s)} s of it to see a refusal` : ''}`,
  )
  expect(own_s).toBeLessThan(first_lift_s)
  if (whole) expect(own_s + day.ordered_s - day.aside_s).toBeLessThan(first_lift_s)
  expect(day.ordered_s / (day.ordered + day.spared)).toBeLessThan(act_s)
}

/**
 * Walked round once more, stowed in its own order on the screen, and handed over.
 *
 * @param tried what is tried when it is stowed
 */
export async function stowAway({ page, m, shift, taken }: Day, tried?: () => Promise<void>): Promise<void> {
  await onceMoreByApi(page, m, shift)
  await page.goto(`/shifts/${shift}/stow`)
  await expect(page.getByRole('heading', { name: 'Stow & hand over' })).toBeVisible()
  const before = await taken()
  await look(page, `${m.id}-stow`)
  await throughOrder(page, undefined, secondPerson)
  await tried?.()
  if (m.hours) {
    const { state } = await (await page.request.get(`/api/machines/${m.id}`)).json()
    await page.getByLabel(m.hours.label).fill(String((state.hours ?? 0) + 2))
  }
  await page.getByRole('button', { name: `Hand over ${m.name}` }).click()
  await expect(page.getByRole('heading', { name: `${m.name}, one shift` })).toBeVisible()
  const after = await taken()
  console.log(`     ${m.id}: stowed and handed over with ${after.touches - before.touches} touches`)
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
  await page.getByLabel('Hook to top of the load').fill(below)
}
