import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { high } from '../quantity/measured'
import { goBy } from '../rating/axes'
import { ratingAt } from '../rating/read'
import type { RatingConfiguration, RatingTable } from '../rating/table'
import type { TruckContext } from './truck-context'

interface Row {
  table: RatingTable
  configuration: RatingConfiguration
  gross_kg: number | null
}

const missing = (reason: 'no-row' | 'not-measured' | 'battery', what: string): Finding[] => [
  found({ check: 'rating', verdict: 'not-proven', reason, detail: { what } }),
]

/** The row of the plate, or of the table of slabs and extension, that this tool, tilt, height and load centre are read in; null: none. */
export function plateRow(ctx: TruckContext): Row | null {
  const { plan, tool, poses } = ctx
  const centre = plan.lift.hung.load.cg?.x_m
  if (centre === undefined) return null
  const height_m = Math.max(...poses.map((p) => p.height_m))
  const forward = poses.some((p) => p.tilt_deg > 0)
  const rows = plan.tables
    .filter((t) => t.machine === ctx.machine.id)
    .flatMap((table) => table.configurations.map((configuration) => ({ table, configuration })))
    .flatMap(({ table, configuration }): Row[] => {
      const { attachment, tool: made, mast, loadCentre_m } = configuration.appliesTo
      if (goBy(table.axes, 'liftHeight_m', 'loadCentre_m')) {
        if ((attachment ?? 'forks') !== tool || (forward && mast !== 'forward')) return []
        const { gross_kg } = ratingAt(table.axes, configuration, height_m, high(centre), 'worse-row')
        return [{ table, configuration, gross_kg: gross_kg === 'not-rated' ? null : gross_kg }]
      }
      if (goBy(table.axes, 'reach_m', 'per')) {
        if (made !== tool) return []
        const { gross_kg } = ratingAt(table.axes, configuration, high(centre), 'tool', 'worse-row')
        return [{ table, configuration, gross_kg: gross_kg === 'not-rated' ? null : gross_kg }]
      }
      const { slabs, extension_m } = plan.setup.fitted
      if (!goBy(table.axes, 'extension_m', 'slabs') || made !== tool || slabs === undefined || extension_m === undefined)
        return []
      if (loadCentre_m === undefined || loadCentre_m < high(centre) - 1e-9) return []
      const { gross_kg } = ratingAt(table.axes, configuration, extension_m, slabs, 'worse-row')
      return [{ table, configuration, gross_kg: gross_kg === 'not-rated' ? null : gross_kg }]
    })
  // Of rows that all hold, the one that rates most: each is no easier than the load.
  return rows.reduce<Row | null>((best, r) => (best === null || (r.gross_kg ?? -1) > (best.gross_kg ?? -1) ? r : best), null)
}

/** The load against the plate; forks and tool are in its figures. */
export function truckRating(ctx: TruckContext): Finding[] {
  const { plan, step, mass_kg, machine, near_share } = ctx
  if (!step.laden) return [found({ check: 'rating', verdict: 'inside', reason: 'nothing-on', detail: {} })]
  if (mass_kg === null) return []
  if (!plan.lift.hung.load.cg) return missing('not-measured', 'the load’s centre from the face of the forks')
  const slabTable = plan.tables.some((t) => t.machine === machine.id && goBy(t.axes, 'extension_m', 'slabs'))
  if (slabTable && (plan.setup.fitted.slabs === undefined || plan.setup.fitted.extension_m === undefined))
    return missing('not-measured', 'slabs and how far the counterweight is moved out')
  const row = plateRow(ctx)
  if (!row) return missing('no-row', ctx.tool)
  const battery = row.table.battery
  const own = plan.setup.fitted.battery_kg
  if (battery && (own === undefined || own === null || own < battery.min_kg - 1e-9 || own > battery.max_kg + 1e-9))
    return missing('battery', `${battery.min_kg}–${battery.max_kg} kg`)
  const label = row.configuration.label
  if (row.gross_kg === null)
    return [found({ check: 'rating', verdict: 'outside', reason: 'not-on-plate', detail: { table: label } })]
  const utilisation = shareOf(mass_kg.worst, row.gross_kg)
  return [
    found({
      check: 'rating',
      verdict: byUse(utilisation, near_share),
      reason: 'plate',
      quantity: 'mass',
      measured: mass_kg.worst,
      nominal: mass_kg.nominal,
      limit: row.gross_kg,
      utilisation,
      detail: { table: label },
    }),
  ]
}
