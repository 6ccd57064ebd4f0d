import { readFileSync } from 'node:fs'

/** What a second, plain reckoning of cranes is made of: from the demo's raw files, with nothing of `core/src`. */
export const raw = (path: string) => JSON.parse(readFileSync(new URL(`../../demo/${path}`, import.meta.url), 'utf8'))
export const rad = Math.PI / 180

export interface Xy {
  x_m: number
  y_m: number
}
/** As much of the raw files as is looked at. */
export interface RawModel {
  chassis: { masses: ({ mass_kg: number } & Xy)[] }
  upper: { masses: { mass_kg: number; radius_m: number }[]; counterweights: { mass_kg: number; radius_m: number }[] }
  boom: {
    pivot: { back_m: number }
    headOffset_m: number
    masses: { mass_kg: number; at_m: number; share: number }[]
  }
  outriggers: {
    id: string
    drop?: Xy
    positions?: { fullyExtended: Xy }
    swing?: { hinge: Xy; stops: { section_m: number; angle_deg: number }[] }
  }[]
}
export interface RawTable {
  configurations: { id: string; columns: number[]; rows: { at: number; ratings_kg: (number | null)[] }[] }[]
}

export interface Pt {
  m: number
  x: number
  y: number
}

/** Where its feet stand, as far out as they go, worked out by hand. */
export function feet({ outriggers }: RawModel): { x: number; y: number }[] {
  return outriggers.map(({ drop, positions, swing }) => {
    const at = drop ?? positions?.fullyExtended
    if (at) return { x: at.x_m, y: at.y_m }
    const stop = swing?.stops.at(-1)
    if (!swing || !stop) throw new Error('an outrigger that stands nowhere')
    const { hinge } = swing
    const { section_m, angle_deg } = stop
    return {
      x: hinge.x_m + Math.sign(hinge.x_m) * section_m * Math.cos(angle_deg * rad),
      y: hinge.y_m + Math.sign(hinge.y_m) * section_m * Math.sin(angle_deg * rad),
    }
  })
}

/** Angle of the boom with its head at a radius: by halving, the raised one. */
export function angleAt(boom: RawModel['boom'], L: number, radius: number): number {
  let [lo, hi] = [0, 90]
  const at = (a: number) => L * Math.cos(a * rad) + boom.headOffset_m * Math.sin(a * rad) - boom.pivot.back_m
  // Radius falls as the boom is raised, past the angle of its head offset.
  lo = Math.atan2(boom.headOffset_m, L) / rad
  for (let i = 0; i < 80; i++) {
    const mid = (lo + hi) / 2
    if (at(mid) > radius) lo = mid
    else hi = mid
  }
  return lo
}

/** Where everything is in plan: its masses, and where one kilogram hangs. */
export interface Stood {
  points: Pt[]
  hook: Pt
}

/** A mass out along a slew. */
export const along = (m: number, r: number, slew: number): Pt => ({ m, x: r * Math.cos(slew * rad), y: r * Math.sin(slew * rad) })

/** A machine with a straight boom. */
export function massesAt(model: RawModel, L: number, radius: number, slew: number): Stood {
  const a = angleAt(model.boom, L, radius)
  const put = (m: number, r: number): Pt => along(m, r, slew)
  const points: Pt[] = [
    ...model.chassis.masses.map((m) => ({ m: m.mass_kg, x: m.x_m, y: m.y_m })),
    ...model.upper.masses.map((m) => put(m.mass_kg, m.radius_m)),
    ...model.upper.counterweights.slice(0, 1).map((m) => put(m.mass_kg, m.radius_m)),
    ...model.boom.masses.map((m) => put(m.mass_kg, (m.at_m + m.share * L) * Math.cos(a * rad) - model.boom.pivot.back_m)),
  ]
  return { points, hook: put(1, radius) }
}

/** All its weight together, with something on the hook. */
export function weightOf({ points, hook }: Stood, hung_kg: number): { N: number; x: number; y: number } {
  const all = [...points, { ...hook, m: hung_kg }]
  const m = all.reduce((sum, p) => sum + p.m, 0)
  const mean = (of: (p: Pt) => number) => all.reduce((sum, p) => sum + p.m * of(p), 0) / m
  return { N: m * 9.80665, x: mean((p) => p.x), y: mean((p) => p.y) }
}

/** The least mass on the hook that tips it over any edge, at one slew. */
export function tipping(stand: { x: number; y: number }[], { points, hook }: Stood): number {
  let least = Infinity
  for (const p of stand)
    for (const q of stand) {
      if (p === q) continue
      const inside = (t: { x: number; y: number }) => (q.x - p.x) * (t.y - p.y) - (q.y - p.y) * (t.x - p.x)
      if (stand.some((t) => inside(t) < -1e-9)) continue
      const holds = points.reduce((sum, t) => sum + t.m * inside(t), 0)
      const lifts = -inside(hook)
      if (lifts > 1e-12) least = Math.min(least, Math.max(0, holds) / lifts)
    }
  return least
}

/** What one leg carries at the most, however the others settle: of every three that hold it up alone, newtons. */
export function mostOn(stand: { x: number; y: number }[], w: { N: number; x: number; y: number }, leg: number): number {
  let most = 0
  for (let i = 0; i < stand.length; i++)
    for (let j = i + 1; j < stand.length; j++)
      for (let k = j + 1; k < stand.length; k++) {
        const at = [i, j, k].map((n) => stand[n] ?? { x: 0, y: 0 }) as [Xyz, Xyz, Xyz]
        const area = (a: Xyz, b: Xyz, c: Xyz) => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)
        const whole = area(at[0], at[1], at[2])
        if (Math.abs(whole) < 1e-9) continue
        const shares = [area(w, at[1], at[2]), area(at[0], w, at[2]), area(at[0], at[1], w)].map((s) => s / whole)
        if (shares.some((s) => s < -1e-9)) continue
        const own = [i, j, k].indexOf(leg)
        if (own >= 0) most = Math.max(most, (shares[own] ?? 0) * w.N)
      }
  return most
}
type Xyz = { x: number; y: number }

/** The rating by hand: of both neighbours in row and column the least; null: nothing is rated. */
export function ratedAt(table: RawTable, id: string, row: number, column: number): number | null {
  const c = table.configurations.find((x) => x.id === id)
  if (!c) throw new Error(`no ${id}`)
  const near = (list: number[], v: number): number[] => {
    const same = list.findIndex((x) => Math.abs(x - v) <= 1e-9 * Math.max(1, x))
    if (same >= 0) return [same]
    const above = list.findIndex((x) => x > v)
    return above <= 0 ? [] : [above - 1, above]
  }
  const rows = near(
    c.rows.map((r) => r.at),
    row,
  )
  const columns = near(c.columns, column)
  const cells = rows.flatMap((i) => columns.map((j) => c.rows[i]?.ratings_kg[j] ?? null))
  return cells.length === 0 || cells.includes(null) ? null : Math.min(...(cells as number[]))
}
