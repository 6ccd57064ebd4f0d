import { randomUUID } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import {
  itemsOf,
  type OrderEvent,
  type OrderStation,
  orderOf,
  reckonedBy,
  type Shift,
  soundReading,
  walkThrough,
} from '@geolabe/core'
import pg from 'pg'
import { inject } from 'vitest'
import { type AppOptions, makeApp } from '../src/app'
import { calcPool } from '../src/calc/pool'
import { Database } from '../src/db/database'
import { readMachineFile, readOrganisations, readPlaceFile } from '../src/demo/files'
import { freshSealing } from '../src/key/sealing'
import { freshKey } from '../src/key/signing'
import { Live } from '../src/live/live'
import { Photos } from '../src/photos/photos'

export const tern = readMachineFile('tern')
export const quay = readPlaceFile('north-quay')
export const people = readOrganisations().flatMap((o) => o.people.map((p) => ({ ...p, organisation: o.id })))

export interface Answer {
  status: number
  // biome-ignore lint/suspicious/noExplicitAny: answers are looked into, not typed, in tests
  body: any
  headers: Headers
}

/** Made once: it takes a moment. */
export const aSealing = freshSealing()

/** A server on a port of its own over a database; the pools go with it. */
export async function serve(url: string, over: Partial<AppOptions> = {}, doorUrl = url) {
  const [db, door] = [new Database(url), new Database(doorUrl, 4)]
  const live = new Live(url)
  const [calc, photos] = [calcPool(), new Photos()]
  const plain = { web: null, demo: null, secure: false, trustProxy: [], hosts: [], idleHours: 6, serving: () => true }
  const keys = { signing: freshKey(), sealing: aSealing }
  const app = makeApp({ db, door, live, calc, photos, ...keys, ...plain, ...over })
  const server: Server = createServer(app)
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  return {
    db,
    app,
    base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    stop: async () => {
      await live.end()
      server.closeAllConnections()
      await new Promise((done) => server.close(done))
      await Promise.all([db.end(), door.end(), calc.end(), photos.end()])
    },
  }
}

interface Layer {
  route?: { path: string; stack: { method: string }[] }
  handle?: { stack?: Layer[] }
}

/** Every address that takes a POST, wherever its router hangs: none is forgotten where all are meant. */
const postsOf = (layers: readonly Layer[]): string[] =>
  layers.flatMap(({ route, handle }) =>
    route ? (route.stack.some((s) => s.method === 'post') ? [route.path] : []) : postsOf(handle?.stack ?? []),
  )

/** A running server with a database of its own, and people to sign on to it. */
export async function start(over: Partial<AppOptions> = {}) {
  const { db, app, base, stop } = await serve(inject('databaseUrl'), over, inject('doorUrl'))
  const owner = new pg.Pool({ connectionString: inject('ownerUrl'), max: 2, options: '-c search_path=geolabe' })
  return {
    base,
    db,
    posts: () => postsOf(app.router.stack as unknown as Layer[]).map((path) => path.replace(/^\/api/, '')),
    owner,
    as: (name: string) => signOn(base, name),
    stop: async () => {
      await stop()
      await owner.end()
    },
    /** Closes what is open on Tern and returns its stopping defects, so that each test begins with a free machine. */
    freeTern: async () => {
      await owner.query('update shift set closed_at = now() where closed_at is null')
      await owner.query(
        "alter table defect disable trigger user; alter table defect_step disable trigger user; delete from photo; delete from defect_note; delete from defect_step s using defect d where d.org = s.org and d.id = s.defect and d.machine = 'tern' and d.grade <> 'watch'; alter table defect_step enable trigger user; delete from defect where machine = 'tern' and grade <> 'watch'; alter table defect enable trigger user",
      )
      // What must follow an override holds whoever takes it next.
      await owner.query("update override_use set followed_at = now() where followed_at is null and machine = 'tern'")
      await owner.query('delete from throttle')
    },
  }
}
export type Running = Awaited<ReturnType<typeof start>>

export async function send(
  base: string,
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer> {
  const isForm = body instanceof FormData
  const r = await fetch(`${base}/api${path}`, {
    method,
    headers: { 'x-geolabe': '1', ...(body === undefined || isForm ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
  })
  const type = r.headers.get('content-type') ?? ''
  return {
    status: r.status,
    headers: r.headers,
    body: type.includes('json') ? await r.json() : Buffer.from(await r.arrayBuffer()),
  }
}

async function signOn(base: string, name: string) {
  const p = people.find((x) => x.name === name)
  if (!p) throw new Error(`nobody called ${name}`)
  const r = await send(base, 'POST', '/session', { organisation: p.organisation, badge: p.badge, pin: p.demoPin })
  if (r.status !== 200) throw new Error(`${name} could not sign on: ${JSON.stringify(r.body)}`)
  const cookie = r.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ')
  return {
    id: p.id,
    badge: p.badge,
    pin: p.demoPin ?? '',
    cookie,
    get: (path: string) => send(base, 'GET', path, undefined, { cookie }),
    post: (path: string, body: unknown = {}, key: string = randomUUID()) =>
      send(base, 'POST', path, body, { cookie, 'idempotency-key': key }),
    put: (path: string, form: FormData) => send(base, 'PUT', path, form, { cookie }),
  }
}
export type Person = Awaited<ReturnType<typeof signOn>>

export const openBody = (id: string = randomUUID()) => ({
  id,
  machine: 'tern',
  place: 'north-quay',
  ppe: tern.ppe.map((w) => w.id),
  documents: tern.documents.map((p) => p.id),
  readHandover: true,
})

/** What is looked at before the site; what waits for it is proved by `proveRaised`. */
export const allItems = itemsOf(tern.walkround)
export const items = allItems.filter((x) => x.zone.part !== 'raised')
const raised = allItems.filter((x) => x.zone.part === 'raised')

export const entryBody = (inspection: string, item: (typeof allItems)[number]['item'], over: object = {}) => ({
  inspection,
  item: item.id,
  result: 'in-order',
  reading: item.measure ? soundReading(item.measure) : null,
  at: new Date().toISOString(),
  ...over,
})

/** An override held for so long and let go; what else it rests on is said first. */
export function useOverride(
  p: Person,
  shift: string,
  override: string,
  { held_s = 10, words = '', found = [] as object[] } = {},
) {
  const told = (ago_s: number) => ({
    id: randomUUID(),
    at: new Date(Date.now() - ago_s * 1000).toISOString(),
    by: { id: 'x', name: '' },
    device: '',
  })
  const events = [
    ...found.map((x) => ({ do: 'found', ...x, ...told(held_s + 10) })),
    { do: 'override-begin', override, ...told(held_s) },
    { do: 'override-end', words, ...told(0) },
  ]
  return p.post(`/shifts/${shift}/procedure-events`, { events })
}

/** The order of a station, done right by somebody who began ten minutes ago: every step before what rests on it, the second person at hand. */
export async function inOrder(p: Person, shift: string, station: OrderStation, plan?: object): Promise<Answer> {
  const { body } = await p.get(`/shifts/${shift}`)
  const { machine } = body as Shift
  const by = { id: p.id, name: '' }
  const from_ms = Date.now() - 600_000
  const told = { at: new Date(from_ms).toISOString(), by, device: '' }
  const planned: OrderEvent[] = plan ? [{ do: 'plan', id: randomUUID(), ...told, plan: { setup: plan } }] : []
  const definition = readMachineFile(machine.id)
  const { file, world } = orderOf(definition, { ...body, order: [...body.order, ...planned] })
  const steps = walkThrough(file, world, station, {
    by,
    from_ms,
    id: () => randomUUID(),
    computed: reckonedBy(definition).computed,
  })
  const events = [...planned, ...steps]
  if (events.length === 0) return { status: 200, headers: new Headers(), body }
  const other = people.find((x) => x.name === 'Tomas Brekke')
  const second = other && events.some((e) => e.do === 'second') ? { second: { badge: other.badge, pin: other.demoPin } } : {}
  return p.post(`/shifts/${shift}/procedure-events`, { events, ...second })
}

/** Set up in order, and recorded. */
export async function setUp(p: Person, shift: string, body: ReturnType<typeof setupBody>): Promise<Answer> {
  const done = await inOrder(p, shift, 'setup', body.plan)
  return done.status === 200 ? p.post(`/shifts/${shift}/setups`, body) : done
}

/** What waited for overhead, people and legs. */
export async function proveRaised(p: Person, shift: string): Promise<void> {
  for (const { item } of raised) {
    const r = await p.post(`/shifts/${shift}/entries`, entryBody(shift, item))
    if (r.status !== 200) throw new Error(JSON.stringify(r.body))
  }
  await p.post(`/shifts/${shift}/inspections/finish`, { inspection: shift, part: 'raised' })
}

/** The round at the end, without which nothing is handed over. */
export async function endRound(p: Person, shift: string): Promise<void> {
  const id = randomUUID()
  await p.post(`/shifts/${shift}/inspections`, { id, occasion: 'end-of-shift' })
  for (const { item } of itemsOf(tern.walkround, 'end-of-shift')) {
    await p.post(`/shifts/${shift}/entries`, entryBody(shift, item, { inspection: id }))
  }
  const r = await p.post(`/shifts/${shift}/inspections/finish`, { inspection: id })
  if (r.status !== 200) throw new Error(JSON.stringify(r.body))
}

/** A shift taken as far as the site looked at. */
export async function readyShift(p: Person): Promise<string> {
  const body = openBody()
  const opened = await p.post('/shifts', body)
  if (opened.status !== 200) throw new Error(JSON.stringify(opened.body))
  for (const { item } of items) {
    await p.post(`/shifts/${body.id}/entries`, entryBody(body.id, item))
  }
  await p.post(`/shifts/${body.id}/inspections/finish`, { inspection: body.id })
  await p.post(`/shifts/${body.id}/site`, siteBody())
  return body.id
}

export const siteBody = () => ({
  controls: quay.hazards.map((h) => ({ hazard: h.id, control: h.control })),
  more: [],
  team: ['Ines Haldane', 'Tomas Brekke'],
  fit: true,
})

export function setupBody(id: string = randomUUID()) {
  const mat = quay.mats.find((m) => m.id === 'mat-12')
  const ground = quay.ground.find((g) => g.id === 'deck')
  return {
    id,
    plan: {
      format: 'geolabe.setup/2',
      place: 'north-quay',
      position: { x_m: 18, y_m: 4.3, heading_deg: 0 },
      fitted: { counterweight: 'heavy', partsOfLine: 4 },
      standing: {
        on: 'outriggers',
        outriggers: (tern.outriggers ?? []).map((l) => ({
          id: l.id,
          at: { stop: l.id.endsWith('L') ? 'intermediate' : 'fullyExtended' },
          mat,
          ground,
          stroke_m: 0.2,
        })),
      },
      level: { pitch_deg: 0.1, roll_deg: 0, levelVerified: true },
    },
  }
}

const size = { length_m: 2.4, width_m: 1.5, height_m: 1.7 }

export function liftBody(setup: string, over: object = {}) {
  return {
    id: randomUUID(),
    setup,
    conditions: { wind_mps: 4 },
    plan: {
      format: 'geolabe.lift/2',
      hung: {
        load: { name: 'Pump skid', mass_kg: 2850, massSource: 'marked', windArea_m2: 3.1, dragCoefficient: 1.2, size },
        rigging: [],
      },
      steps: [
        {
          do: 'slew',
          laden: true,
          boom_m: 19.4,
          pickUp: { radius_m: 7, slew_deg: 250 },
          setDown: { radius_m: 9, slew_deg: 300 },
          slewDirection: 'anticlockwise',
          radiusBasis: 'measured-under-load',
          ...over,
        },
      ],
    },
  }
}
