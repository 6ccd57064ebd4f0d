import type { Trial } from '../assess/assess-setup'
import { liftsOnOutriggers, type OutriggerCrane } from '../machine/crane'
import type { Machine } from '../machine/machine'
import { feetOf, furtherOut, stopsOf } from '../parts/supports/outriggers'
import type { SupportState } from '../parts/supports/support'
import { outriggersShortOf } from '../rating/covers'
import { type RatingTable, type StandingConfiguration, saysStanding } from '../rating/table'
import type { Support } from '../statics/footprint'

/** A way for the machine to stand by one sheet of its tables: every outrigger at the stop that the sheet was made for. */
export interface Stance {
  machine: OutriggerCrane
  table: RatingTable
  tables: readonly RatingTable[]
  configuration: StandingConfiguration
  state: SupportState | null
  stops: readonly { id: string; stop: string }[]
  trial: Trial
  level_deg: number
}

/** Where its outriggers stand, stop by stop. */
export const feetAt = ({ machine }: Pick<Stance, 'machine'>, stops: Stance['stops']): Support[] =>
  feetOf(
    machine.outriggers,
    stops.map(({ id, stop }) => ({ id, at: { stop } })),
  )

/** A footprint is drawn from stops, and rounded. */
const sameStop_m = 0.05

function stopsFor(machine: OutriggerCrane, configuration: StandingConfiguration): Stance['stops'] | null {
  const { outriggers } = machine
  const { footprint } = configuration.appliesTo.standing
  const found = outriggers.flatMap((o) => {
    const foot = footprint.find((f) => f.id === o.id)
    const stop = stopsOf(o).find((s) => foot && Math.hypot(s.x_m - foot.x_m, s.y_m - foot.y_m) < sameStop_m)
    return stop ? [{ id: o.id, stop: stop.id }] : []
  })
  if (found.length !== footprint.length || found.length !== outriggers.length) return null
  // Legs that are in stand under the machine, where nothing is seen from above.
  const isIn = outriggers.some((o) => stopsOf(o).length > 1 && found.some((f) => f.id === o.id && f.stop === stopsOf(o)[0]?.id))
  return !isIn && outriggersShortOf(configuration, feetAt({ machine }, found)).length === 0 ? found : null
}

/** Something on the hook in the middle of what the sheet rates; by heights nothing is hung. */
function trialOf(machine: OutriggerCrane, table: RatingTable, c: StandingConfiguration): Trial | null {
  const boom_m = machine.boom.lengths_m[0]
  if (boom_m === undefined) return null
  if (table.axes.row.quantity !== 'radius_m') return { boom_m, radius_m: 0.6 * boom_m, load_kg: null }
  const column = c.columns.indexOf(boom_m)
  const rated = c.rows.filter((r) => (r.ratings_kg[column] ?? 0) > 0)
  const row = rated[Math.floor(rated.length / 2)]
  return row ? { boom_m, radius_m: Number(row.at), load_kg: Math.round(0.7 * Number(row.ratings_kg[column])) } : null
}

/** Sheets for all round, on outriggers by themselves. */
export function stancesOf(machine: Machine, tables: readonly RatingTable[]): Stance[] {
  if (!liftsOnOutriggers(machine)) return []
  const states = machine.supportStates?.filter((s) => s.on === 'outriggers' && s.for === 'lift' && !s.props && !s.contacts)
  return tables.flatMap((table) => {
    const { level_deg } = table
    if (level_deg === undefined) return []
    return table.configurations.filter(saysStanding).flatMap((configuration) => {
      const { sector, forbidden } = configuration.appliesTo
      const state = states?.find((s) => s.configurations?.includes(configuration.id) ?? true) ?? null
      const stops = sector || forbidden?.length || (states && !state) ? null : stopsFor(machine, configuration)
      const trial = trialOf(machine, table, configuration)
      return stops && trial ? [{ machine, table, tables, configuration, state, stops, trial, level_deg }] : []
    })
  })
}

/** The stop next further in, where a beam has one. */
export function stopInside({ machine }: Stance, { id, stop }: Stance['stops'][number]): string | null {
  const outrigger = machine.outriggers.find((o) => o.id === id)
  const inside = outrigger ? stopsOf(outrigger).filter((s) => furtherOut(outrigger, s.id).some((f) => f.id === stop)) : []
  return inside.at(-1)?.id ?? null
}

/** So much of half the width that feet stand at counts for the machine between them, whose own width its data do not say; and so far beyond. */
const [machine_share, tailOut_m] = [0.55, 0.3]

/** Its tail comes out over its side, and not only over itself: something can stand in its way. */
export function hasTail(s: Stance): boolean {
  const half_m = Math.max(...feetAt(s, s.stops).map((f) => Math.abs(f.y_m)))
  return s.machine.upper.tailSwingRadius_m > machine_share * half_m + tailOut_m
}
