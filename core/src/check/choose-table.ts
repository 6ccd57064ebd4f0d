import type { Case } from '../lift/case'
import type { OnHook } from '../lift/hook-load'
import type { Path } from '../lift/path'
import { nth } from '../list'
import type { BoomAt, BoomModel } from '../parts/booms/boom'
import type { SlewStep } from '../parts/stability/slew'
import type { SupportState } from '../parts/supports/support'
import { normalDegrees } from '../physics'
import { high } from '../quantity/measured'
import { goBy } from '../rating/axes'
import { type ChartReading, withDeductions } from '../rating/chart-reading'
import { outriggersShortOf } from '../rating/covers'
import { type GrossReading, type ReadingRule, ratedAtSlew, ratingAt } from '../rating/read'
import { type RatingTable, type StandingConfiguration, saysStanding } from '../rating/table'
import { Refusal } from '../refusal'
import { boundary } from '../search'
import type { Support } from '../statics/footprint'

export interface ChosenTable {
  table: RatingTable
  configuration: StandingConfiguration
}

/** A table for this machine and counterweight, with the legs that keep it from covering this footprint. */
export interface Candidate extends ChosenTable {
  short: string[]
}

/** A table by parts of line as one by boom length: the column of the parts that it is reeved in, for its jib and whatever it stands on. */
const byJib = new WeakMap<RatingTable, Map<string, RatingTable>>()

/**
 * The tables of a machine, each as one by radius or angle and boom length.
 *
 * @param partsOfLine that the hook is reeved in
 */
export function boomTables(
  tables: readonly RatingTable[],
  partsOfLine: number,
  standing: { counterweight_kg: number; contacts: readonly Support[] },
  attachment?: string,
): readonly RatingTable[] {
  return tables.map((table) => {
    if (goBy(table.axes, 'height_m', 'reach_m')) return forTool(table, attachment)
    if (!goBy(table.axes, 'radius_m', 'parts')) return table
    const key = `${partsOfLine} ${standing.counterweight_kg}`
    const known = byJib.get(table) ?? new Map<string, RatingTable>()
    byJib.set(table, known)
    const made = known.get(key) ?? reeved(table, partsOfLine, standing)
    known.set(key, made)
    return made
  })
}

/** Of a table by tools those of one of them. */
const byTool = new WeakMap<RatingTable, Map<string, RatingTable>>()
function forTool(table: RatingTable, attachment: string | undefined): RatingTable {
  const key = attachment ?? ''
  const known = byTool.get(table) ?? new Map<string, RatingTable>()
  byTool.set(table, known)
  const configurations = table.configurations.filter((c) => c.appliesTo.attachment === attachment)
  const made = known.get(key) ?? { ...table, configurations }
  known.set(key, made)
  return made
}

function reeved(table: RatingTable, partsOfLine: number, standing: Parameters<typeof boomTables>[2]): RatingTable {
  const { counterweight_kg, contacts } = standing
  return {
    ...table,
    axes: { ...table.axes, column: { quantity: 'boom_m', label: 'Jib', reading: 'listed', trend: null } },
    configurations: table.configurations.flatMap((c) => {
      const column = c.columns.indexOf(partsOfLine)
      const { jib_m } = c.appliesTo
      if (column < 0 || jib_m === undefined) return []
      return [
        {
          ...c,
          appliesTo: {
            ...c.appliesTo,
            standing: { footprint: contacts.map(({ id, x_m, y_m }) => ({ id, x_m, y_m })), counterweight_kg },
          },
          columns: [jib_m],
          rows: c.rows.map((r) => ({ at: r.at, ratings_kg: [r.ratings_kg[column] ?? null] })),
        },
      ]
    }),
  }
}

/** Tables by radius or angle and boom length that are made for a counterweight, and for the way the machine stands. */
export function candidatesFor(
  tables: readonly RatingTable[],
  counterweight_kg: number,
  contacts: readonly Support[],
  state: SupportState | null,
): Candidate[] {
  return tables
    .filter(
      (t) => goBy(t.axes, 'radius_m', 'boom_m') || goBy(t.axes, 'angle_deg', 'boom_m') || goBy(t.axes, 'height_m', 'reach_m'),
    )
    .flatMap((table) =>
      table.configurations
        .filter(saysStanding)
        .filter((c) => c.appliesTo.standing.counterweight_kg === counterweight_kg)
        .filter((c) => state?.configurations === undefined || state.configurations.includes(c.id))
        .map((configuration) => ({ table, configuration, short: outriggersShortOf(configuration, contacts) })),
    )
}

/** Does a configuration hold over the whole arc: inside its sector, and through nothing that is forbidden? */
export function sectorHolds({ appliesTo: { sector, forbidden = [] } }: StandingConfiguration, arc: Path['arc']): boolean {
  // What is not forbidden lies between the end of one forbidden sector and its beginning.
  const allowed = forbidden.map((f) => ({ from_deg: f.to_deg, to_deg: f.from_deg }))
  return [...(sector ? [sector] : []), ...allowed].every((s) => arcInside(s, arc))
}

/** Does a sector, anticlockwise from–to, hold the whole arc? */
export function arcInside(sector: { from_deg: number; to_deg: number }, arc: Path['arc']): boolean {
  const width = normalDegrees(sector.to_deg - sector.from_deg) || 360
  const [a, b] = arc.from_deg <= arc.to_deg ? [arc.from_deg, arc.to_deg] : [arc.to_deg, arc.from_deg]
  const into = normalDegrees(a - sector.from_deg)
  return (into > 360 - 1e-9 ? 0 : into) + (b - a) <= width + 1e-9
}

/** What a table rates with the boom's head at a radius, by whatever its rows count. */
export function ratedAtRadius(
  { table, configuration }: ChosenTable,
  radius_m: number,
  { boom, boom_m, deflection_m }: BoomAt,
  rule: ReadingRule,
): GrossReading {
  if (goBy(table.axes, 'height_m', 'reach_m')) {
    const height_m = heightAt(boom, boom_m, radius_m, deflection_m)
    return height_m === null
      ? { gross_kg: 'not-rated', basis: 'unknown', cells: [] }
      : ratingAt(table.axes, configuration, height_m, radius_m, rule)
  }
  const row = table.axes.row.quantity === 'angle_deg' ? angleAt(boom, boom_m, radius_m, deflection_m) : radius_m
  return row === null
    ? { gross_kg: 'not-rated', basis: 'unknown', cells: [] }
    : ratingAt(table.axes, configuration, row, boom_m, rule)
}

function angleAt(...at: Parameters<typeof poseOf>): number | null {
  return poseOf(...at)?.angle_deg ?? null
}
const heightAt = (...at: Parameters<typeof poseOf>): number | null => poseOf(...at)?.tip_height_m ?? null

function poseOf(boom: BoomModel, boom_m: number, radius_m: number, deflection_m: number) {
  try {
    return boom.poseAtRadius(boom_m, radius_m, deflection_m)
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

/** Radii at which a configuration's reading changes with the boom at this length. */
export function rowRadii({ table, configuration }: ChosenTable, { boom, boom_m, deflection_m }: BoomAt): number[] {
  const rows = configuration.rows.map((r) => Number(r.at))
  if (goBy(table.axes, 'height_m', 'reach_m'))
    return [...configuration.columns.map(Number), ...rows.flatMap((h) => radiiAtHeight({ boom, boom_m, deflection_m }, h))]
  return table.axes.row.quantity === 'angle_deg' ? rows.map((a) => boom.poseAtAngle(boom_m, a, deflection_m).radius_m) : rows
}

/** Where the head of a boom at one length stands at a height; none where it does not get there. */
function radiiAtHeight({ boom, boom_m, deflection_m }: BoomAt, height_m: number): number[] {
  const above = (angle_deg: number) => boom.poseAtAngle(boom_m, angle_deg, deflection_m).tip_height_m > height_m
  const [low, high] = [boom.minAngle_deg, boom.maxAngle_deg]
  if (above(low) || !above(high)) return []
  return [boom.poseAtAngle(boom_m, boundary(above, high, low, 1e-9), deflection_m).radius_m]
}

/** One step's way, with the boom it is done with. */
export interface Stretch extends BoomAt {
  step: number
  path: Path
}

/** Between every two of these radii the one in the middle: a cell that holds up to a row and up to a column may lie only between them. */
function middlesOf(radii_m: readonly number[]): number[] {
  const sorted = [...radii_m].sort((a, b) => a - b)
  return sorted.slice(1).map((r, i) => (nth(sorted, i) + r) / 2)
}

/** The least rating on a path: at its ends, at every row and column of the table between them, and in the middle of every gap. */
export function worstOnPath(chosen: ChosenTable, stretch: Stretch, rule: ReadingRule) {
  const { path } = stretch
  const readAt = (radius_m: number) => ({ radius_m, read: ratedAtRadius(chosen, radius_m, stretch, rule) })
  let worst = readAt(path.radii_m[0] ?? path.greatest_m)
  const rows_m = rowRadii(chosen, stretch).filter((r) => r > path.least_m && r < path.greatest_m)
  const marks_m = [...path.radii_m, ...rows_m]
  const between_m = goBy(chosen.table.axes, 'height_m', 'reach_m') ? middlesOf(marks_m) : []
  for (const radius_m of [...marks_m, ...between_m]) {
    const next = readAt(radius_m)
    if (next.read.gross_kg === 'not-rated') return next
    if (worthOf(next.read) < worthOf(worst.read)) worst = next
  }
  return worst
}
/** The least of several readings. */
const worstOf = <T extends { read: GrossReading }>(readings: readonly T[]): T =>
  readings.reduce((a, b) => (worthOf(b.read) < worthOf(a.read) ? b : a), nth(readings, 0))

const worthOf = ({ gross_kg }: Pick<GrossReading, 'gross_kg'>) => (gross_kg === 'not-rated' ? -1 : gross_kg)

/** What came of looking for the table that covers a set-up and a path. */
export type Choice =
  | { by: 'none'; reason: 'no-table' | 'unknown-configuration'; chosen: null; reading: null }
  | { by: 'short'; table: string; outriggers: string[]; chosen: null; reading: null }
  /** The path leaves its sector; another, for which these legs are too short, would hold it. */
  | { by: 'sector'; other: Candidate | null; chosen: ChosenTable; reading: null }
  | { by: 'table'; chosen: ChosenTable; reading: ChartReading; rule: ReadingRule; radius_m: number; step: number }

/**
 * The table that covers this set-up and every step's path: the machine's computer is not set anew in the middle of a lift. Among several the one least used is proposed; a configuration named by the person
 * is judged as it stands.
 */
export function chooseTable(
  { tables, machine, setup, lift, policy }: Pick<Case, 'tables' | 'machine' | 'setup' | 'lift' | 'policy'>,
  stretches: readonly Stretch[],
  counterweight_kg: number,
  { contacts, state }: { contacts: readonly Support[]; state: SupportState | null },
  hook: OnHook | null,
): Choice {
  const candidates = candidatesFor(
    boomTables(
      tables.filter((t) => t.machine === machine.id),
      setup.fitted.partsOfLine ?? 0,
      { counterweight_kg, contacts },
      setup.fitted.attachment,
    ),
    counterweight_kg,
    contacts,
    state,
  )
  const none = { chosen: null, reading: null }
  if (candidates.length === 0) return { by: 'none', reason: 'no-table', ...none }
  const named = lift.configuration
  const pool = named === undefined ? candidates : candidates.filter((c) => c.configuration.id === named)
  if (pool.length === 0) return { by: 'none', reason: 'unknown-configuration', ...none }
  const covering = pool.filter((c) => c.short.length === 0)
  if (covering.length === 0) {
    const nearest = nth(
      [...pool].sort((a, b) => a.short.length - b.short.length),
      0,
    )
    return { by: 'short', table: nearest.configuration.label, outriggers: nearest.short, ...none }
  }
  const rated = covering
    .map((c) => {
      const rule: ReadingRule = c.table.linearPermitted ? policy.readingRule : 'worse-row'
      const worst = worstOf(stretches.map((s) => ({ step: s.step, ...worstOnPath(c, s, rule) })))
      const held = stretches.every(({ path }) => sectorHolds(c.configuration, path.arc))
      return { c, held, worst, rule }
    })
    .sort((a, b) => {
      const score = (r: typeof a) => (!r.held ? 3 : r.worst.read.gross_kg === 'not-rated' ? 2 : 0)
      return score(a) - score(b) || worthOf(b.worst.read) - worthOf(a.worst.read)
    })
  const best = nth(rated, 0)
  const chosen = { table: best.c.table, configuration: best.c.configuration }
  if (!best.held) {
    const other =
      candidates.find((x) => x.short.length > 0 && stretches.every(({ path }) => sectorHolds(x.configuration, path.arc))) ?? null
    return { by: 'sector', other, chosen, reading: null }
  }
  const { rule, worst } = best
  const reading = withDeductions(worst.read, rule, hook?.deductions ?? [], hook?.load_kg, undefined)
  return { by: 'table', chosen, reading, rule, radius_m: worst.radius_m, step: worst.step }
}

/** What a table rates at pick-up and at set-down, each at the worse end of its doubt. */
export function ratedAtEnds(chosen: ChosenTable, step: SlewStep, withBoom: BoomAt, policy: { readingRule: ReadingRule }) {
  const rule: ReadingRule = chosen.table.linearPermitted ? policy.readingRule : 'worse-row'
  const at = ({ radius_m, slew_deg }: SlewStep['pickUp']) => {
    if (!ratedAtSlew(chosen.configuration, slew_deg)) return null
    const { gross_kg } = ratedAtRadius(chosen, high(radius_m), withBoom, rule)
    return gross_kg === 'not-rated' ? null : gross_kg
  }
  return { pick_kg: at(step.pickUp), set_kg: at(step.setDown) }
}
