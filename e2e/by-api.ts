import { randomUUID } from 'node:crypto'
import {
  expectedOnPlate,
  isRaised,
  itemsOf,
  liftsOnOutriggers,
  type Machine,
  type OrderEvent,
  type OrderStation,
  orderOf,
  type Place,
  reckonedBy,
  type Shift,
  soundReading,
  stopsOf,
  walkThrough,
} from '@geolabe/core'
import { expect, type Page } from '@playwright/test'
import { readOrganisations, readPlaceFile, readTableFile } from '../server/src/demo/files'

/** Who stands by as the second of two people. */
const tomas = readOrganisations()
  .flatMap((o) => o.people)
  .find((p) => p.name === 'Tomas Brekke')
export const secondPerson = { badge: tomas?.badge ?? '', pin: tomas?.demoPin ?? '' }

/** As a device does: what the records could not be reached for is sent again under the same key. */
async function sent(page: Page, path: string, data: unknown) {
  const headers = { 'x-geolabe': '1', 'idempotency-key': randomUUID() }
  for (let tries = 0; ; tries++) {
    const answer = await page.request.post(`/api${path}`, { data, headers })
    if (answer.status() !== 503 || tries === 5) return answer
    await page.waitForTimeout(1000)
  }
}
const tried = async (page: Page, path: string, data: unknown) => (await sent(page, path, data)).ok()

/** One write as the page itself would send it. */
export async function post(page: Page, path: string, data: unknown): Promise<void> {
  const r = await sent(page, path, data)
  expect(r.ok(), `${path}: ${r.ok() ? '' : await r.text()}`).toBe(true)
}

/** A plate as it should read: figures by the tables in use, words made up. */
function plateOf(machine: Machine): Record<string, string | number> {
  const tables = machine.tables.map(readTableFile)
  return Object.fromEntries(
    machine.plateFields.map((f) => [
      f.id,
      f.quantity === undefined ? `${machine.name} ${f.id}` : (expectedOnPlate(f, tables) ?? 100),
    ]),
  )
}

type Items = ReturnType<typeof itemsOf>

/** One walk-round, everything of it in order. */
async function walk(page: Page, machine: Machine, shift: string, part: 'first' | 'raised', inspection: string, items: Items) {
  for (const { item } of items) {
    const reading = item.measure ? soundReading(item.measure) : null
    const at = new Date().toISOString()
    const entry = { inspection, item: item.id, result: 'in-order', reading, at }
    // A plate that was entered before only has to read the same; a new one is entered.
    const known = item.plate && (await tried(page, `/shifts/${shift}/entries`, entry))
    if (!known) await post(page, `/shifts/${shift}/entries`, { ...entry, plate: item.plate ? plateOf(machine) : null })
  }
  await post(page, `/shifts/${shift}/inspections/finish`, { inspection, part })
}

const before = (machine: Machine, raised: boolean) => itemsOf(machine.walkround).filter((x) => isRaised(x) === raised)

/** The round at the end of a shift, of a machine that has one. */
export async function onceMoreByApi(page: Page, machine: Machine, shift: string): Promise<void> {
  const items = itemsOf(machine.walkround, 'end-of-shift')
  if (items.length === 0) return
  const id = randomUUID()
  await post(page, `/shifts/${shift}/inspections`, { id, occasion: 'end-of-shift' })
  await walk(page, machine, shift, 'first', id, items)
}

/** A machine taken, walked round and its site looked at, as somebody did before this test begins. Returns the shift. */
export async function broughtToSetUp(page: Page, machine: Machine, place: Place): Promise<string> {
  const id = randomUUID()
  const [ppe, documents] = [machine.ppe.map((w) => w.id), machine.documents.map((d) => d.id)]
  await post(page, '/shifts', { id, machine: machine.id, place: place.id, ppe, documents, readHandover: true })
  await walk(page, machine, id, 'first', id, before(machine, false))
  const controls = place.hazards.map((h) => ({ hazard: h.id, control: h.control }))
  await post(page, `/shifts/${id}/site`, { controls, more: [], team: ['Ines Haldane', 'Tomas Brekke'], fit: true })
  return id
}

/** What waited for overhead, people and what the machine stands on. */
export const raisedByApi = (page: Page, machine: Machine, shift: string) =>
  before(machine, true).length > 0 ? walk(page, machine, shift, 'raised', shift, before(machine, true)) : Promise.resolve()

/** A set-up that is recorded and proves nothing yet: outriggers as far out as they go, or on its wheels; nothing confirmed. */
export async function setUpByApi(page: Page, machine: Machine, at: Place, shift: string): Promise<void> {
  // What was tapped before may still be on its way from the page to the records.
  await expect
    .poll(async () => (await (await page.request.get(`/api/shifts/${shift}`)).json()).site, { timeout: 30_000 })
    .toBeTruthy()
  const state = machine.supportStates?.find((s) => s.on === 'outriggers')
  const outriggers = (machine.outriggers ?? []).map((o) => ({
    id: o.id,
    at: { stop: stopsOf(o).at(-1)?.id ?? '' },
    mat: null,
    ground: null,
    stroke_m: o.stroke.min_m,
  }))
  const standing = liftsOnOutriggers(machine)
    ? { on: 'outriggers', ...(state && { state: state.id }), outriggers }
    : machine.tower
      ? { on: 'base', certificate: null }
      : machine.tracks
        ? { on: 'tracks', ground: null }
        : { on: 'wheels', ground: null, tyres: null }
  const plan = {
    format: 'geolabe.setup/2',
    place: at.id,
    position: { x_m: 0, y_m: 0, heading_deg: 0 },
    standing,
    fitted: {},
    level: { pitch_deg: null, roll_deg: null, levelVerified: false },
    confirmed: [],
  }
  await inOrderByApi(page, machine, shift, 'setup', plan)
  await post(page, `/shifts/${shift}/setups`, { id: randomUUID(), plan })
}

/** The order of a station, done right by somebody before this test begins. */
export async function inOrderByApi(
  page: Page,
  machine: Machine,
  shift: string,
  station: OrderStation,
  plan?: object,
): Promise<void> {
  const body = (await (await page.request.get(`/api/shifts/${shift}`)).json()) as Shift
  const from_ms = Date.now() - 600_000
  const by = body.operator
  const told = { at: new Date(from_ms).toISOString(), by, device: '' }
  const planned: OrderEvent[] = plan ? [{ do: 'plan', id: randomUUID(), ...told, plan: { setup: plan } }] : []
  const { file, world } = orderOf(machine, { ...body, order: [...body.order, ...planned] })
  const events = [
    ...planned,
    ...walkThrough(file, world, station, { by, from_ms, id: () => randomUUID(), computed: reckonedBy(machine).computed }),
  ]
  const second = events.some((e) => e.do === 'second') ? { second: secondPerson } : {}
  if (events.length > 0) await post(page, `/shifts/${shift}/procedure-events`, { events, ...second })
}

export const place = readPlaceFile
