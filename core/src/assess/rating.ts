import { byUse, type Finding, found, shareOf } from '../finding/finding'
import type { Path } from '../lift/path'
import type { LiftPlan } from '../lift/plan'
import type { Crane } from '../machine/posed'
import { normalDegrees } from '../physics'
import { inSector } from '../plane/sector'
import { high } from '../quantity/measured'
import {
  type ChartReading,
  type Deduction,
  lineLimit_kg,
  type ReadingRule,
  readGross,
  withDeductions,
} from '../rating/chart-reading'
import { legsShortOf } from '../rating/covers'
import type { BoomTable, ChartConfiguration } from '../rating/table'
import type { Support } from '../statics/footprint'
import { type OnHook, reevingOf } from './on-hook'

export interface ChosenTable {
  table: BoomTable
  configuration: ChartConfiguration
}

/** A table for this machine and counterweight, with the legs that keep it from covering this footprint. */
export interface Candidate extends ChosenTable {
  short: string[]
}

export function candidatesFor(
  tables: readonly BoomTable[],
  machine: Crane,
  counterweight_kg: number,
  footprint: readonly Support[],
): Candidate[] {
  return tables
    .filter((t) => t.machine === machine.id)
    .flatMap((table) =>
      table.configurations
        .filter((c) => c.counterweight_kg === counterweight_kg)
        .map((configuration) => ({ table, configuration, short: legsShortOf(configuration, footprint) })),
    )
}

/** Does a sector hold the whole arc? */
export function sectorHolds(c: ChartConfiguration, arc: Path['arc']): boolean {
  if (!c.sector) return true
  const width = normalDegrees(c.sector.to_deg - c.sector.from_deg) || 360
  const [a, b] = arc.from_deg <= arc.to_deg ? [arc.from_deg, arc.to_deg] : [arc.to_deg, arc.from_deg]
  if (!inSector(c, a) || !inSector(c, b)) return false
  const into = normalDegrees(a - c.sector.from_deg)
  return (into > 360 - 1e-9 ? 0 : into) + (b - a) <= width + 1e-9
}

/** The least rating on a path: at its ends and at every row of the table between them. */
export function worstOnPath(c: ChartConfiguration, path: Path, boom_m: number, rule: ReadingRule) {
  const radii = [...path.radii_m, ...c.rows.map((r) => r.radius_m).filter((r) => r > path.least_m && r < path.greatest_m)]
  let worst: { radius_m: number; read: ReturnType<typeof readGross> } | null = null
  for (const radius_m of radii) {
    const read = readGross({ rows: c.rows, boom_m: c.boom_m }, { radius_m, boom_m }, rule)
    if (read.gross_kg === 'not-rated') return { radius_m, read }
    if (worst === null || read.gross_kg < (worst.read.gross_kg as number)) worst = { radius_m, read }
  }
  return worst as { radius_m: number; read: ReturnType<typeof readGross> }
}

export interface RatingResult {
  findings: Finding[]
  chosen: ChosenTable | null
  reading: ChartReading | null
  at_radius_m: number | null
}

/**
 * The table that covers this set-up and path, and what it allows. Among several the one least used is proposed; a
 * configuration named by the person is judged as it stands.
 */
export function rate(
  candidates: readonly Candidate[],
  lift: LiftPlan,
  path: Path,
  hook: OnHook | null,
  policy: { readingRule: ReadingRule; near_share: number },
  deductions: readonly Deduction[],
): RatingResult {
  const none = (f: Finding): RatingResult => ({ findings: [f], chosen: null, reading: null, at_radius_m: null })
  if (candidates.length === 0) return none(found({ check: 'table', verdict: 'not-proven', reason: 'no-table' }))
  const named = lift.configuration
  const pool = named === undefined ? candidates : candidates.filter((c) => c.configuration.id === named)
  if (pool.length === 0) return none(found({ check: 'table', verdict: 'not-proven', reason: 'unknown-configuration' }))
  const covering = pool.filter((c) => c.short.length === 0)
  if (covering.length === 0) {
    const nearest = [...pool].sort((a, b) => a.short.length - b.short.length)[0] as Candidate
    return none(
      found({
        check: 'table',
        verdict: 'outside',
        reason: 'legs-short',
        detail: { table: nearest.configuration.label, legs: nearest.short.join(', ') },
      }),
    )
  }
  const rateOne = (c: Candidate) => {
    const rule: ReadingRule = c.table.linearPermitted ? policy.readingRule : 'worse-row'
    const held = sectorHolds(c.configuration, path.arc)
    const worst = worstOnPath(c.configuration, path, lift.boom_m, rule)
    const net = (kg: number | undefined, d: readonly Deduction[]) => withDeductions(worst.read, rule, d, kg, undefined)
    return { c, held, worst, rule, reading: net(hook?.load_kg, deductions) }
  }
  const rated = covering.map(rateOne).sort((a, b) => {
    const score = (r: typeof a) => (!r.held ? 3 : r.reading.gross_kg === 'not-rated' ? 2 : 0)
    return score(a) - score(b) || gross(b.reading) - gross(a.reading)
  })
  const best = rated[0] as (typeof rated)[number]
  const { c, worst, reading } = best
  const chosen = { table: c.table, configuration: c.configuration }
  const label = c.configuration.label
  if (!best.held) {
    const shorter = candidates.find((x) => x.short.length > 0 && sectorHolds(x.configuration, path.arc))
    return {
      ...none(
        found({
          check: 'rating',
          verdict: 'outside',
          reason: 'outside-sector',
          detail: { table: label, ...(shorter ? { legs: shorter.short.join(', '), other: shorter.configuration.label } : {}) },
        }),
      ),
      chosen,
    }
  }
  const at = { radius_m: worst.radius_m, slew_deg: slewWithRadius(lift, worst.radius_m) }
  if (reading.gross_kg === 'not-rated') {
    return {
      findings: [
        found({ check: 'rating', verdict: 'outside', reason: 'not-rated', at, detail: { table: label, boom_m: lift.boom_m } }),
      ],
      chosen,
      reading,
      at_radius_m: worst.radius_m,
    }
  }
  if (!hook) return { findings: [], chosen, reading, at_radius_m: worst.radius_m }
  const unknownBend = lift.radiusKnown === null
  const gross_kg = reading.gross_kg
  const used_kg = hook.load_kg + deductions.reduce((s, d) => s + d.mass_kg, 0)
  const utilisation = shareOf(used_kg, gross_kg)
  const judged = byUse(utilisation, policy.near_share)
  return {
    findings: [
      found({
        check: 'rating',
        // A boom bends outwards under load: without the bend the true radius is greater, and the rating is not proven.
        verdict: unknownBend && judged !== 'outside' ? 'not-proven' : judged,
        reason: unknownBend && judged !== 'outside' ? 'bend-unknown' : 'capacity',
        quantity: 'mass',
        measured: used_kg,
        nominal: hook.totalNominal_kg + deductions.filter((d) => d.on === 'boom').reduce((s, d) => s + d.mass_kg, 0),
        limit: gross_kg,
        utilisation,
        at,
        detail: { table: label, boom_m: lift.boom_m, rule: best.rule, basis: reading.basis },
      }),
    ],
    chosen,
    reading,
    at_radius_m: worst.radius_m,
  }
}

/** What a table rates at pick-up and at set-down, each at the worse end of its doubt. */
export function ratedAtEnds({ table, configuration }: ChosenTable, lift: LiftPlan, policy: { readingRule: ReadingRule }) {
  const rule: ReadingRule = table.linearPermitted ? policy.readingRule : 'worse-row'
  const at = ({ radius_m, slew_deg }: LiftPlan['pick']) => {
    const { gross_kg } = readGross(configuration, { radius_m: high(radius_m), boom_m: lift.boom_m, slew_deg }, rule)
    return gross_kg === 'not-rated' ? null : gross_kg
  }
  return { pick_kg: at(lift.pick), set_kg: at(lift.set) }
}

const gross = (r: ChartReading) => (r.gross_kg === 'not-rated' ? -1 : r.gross_kg)

/** The slew of whichever end stands nearer to a radius. */
export function slewWithRadius(lift: LiftPlan, radius_m: number): number {
  const off = (p: LiftPlan['pick']) => Math.abs((typeof p.radius_m === 'number' ? p.radius_m : p.radius_m.value) - radius_m)
  return off(lift.set) <= off(lift.pick) ? lift.set.slew_deg : lift.pick.slew_deg
}

/** Line and hook block against everything that hangs on them. */
export function rateLine(machine: Crane, lift: LiftPlan, hook: OnHook, near_share: number): Finding[] {
  const reeving = reevingOf(machine, lift.parts)
  const { linePull_N, leadSheaves, sheaveEfficiency } = machine.hoist
  const line_kg = lineLimit_kg({ linePull_N, leadSheaves, sheaveEfficiency, parts: lift.parts })
  const one = (check: 'line' | 'hook', limit: number, detail: Finding['detail']) =>
    found({
      check,
      verdict: byUse(hook.total_kg / limit, near_share),
      reason: 'capacity',
      quantity: 'mass',
      measured: hook.total_kg,
      nominal: hook.totalNominal_kg,
      limit,
      utilisation: hook.total_kg / limit,
      detail,
    })
  return [one('line', line_kg, { parts: lift.parts }), one('hook', reeving.block.hook_kg, { block: reeving.block.name })]
}
