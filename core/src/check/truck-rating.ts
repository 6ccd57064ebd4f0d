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

/** The grid for this tool, with feet up or down. */
function gridOf({ plan, machine, tool, feetDown }: TruckContext): Pick<Row, 'table' | 'configuration'> | null {
  const grids = plan.tables
    .filter((t) => t.machine === machine.id && goBy(t.axes, 'height_m', 'reach_m'))
    .flatMap((table) => table.configurations.map((configuration) => ({ table, configuration })))
  const stands = feetDown ? 'down' : 'up'
  return (
    grids.find(
      ({ configuration: { appliesTo: c } }) => c.attachment === tool && (c.stabilisers === stands || c.stabilisers === 'none'),
    ) ?? null
  )
}

/** The load against the grid, cell by cell along the whole way of the boom: where it is rated least. */
function gridRating(ctx: TruckContext, { worst, nominal }: { worst: number; nominal: number }): Finding[] {
  const grid = gridOf(ctx)
  if (!grid) return missing('no-row', ctx.tool)
  const { axes } = grid.table
  const { cg } = ctx.plan.lift.hung.load
  const beyond_m = (cg ? high(cg.x_m) : 0) - (ctx.truck.reach?.loadCentre_m ?? 0)
  const label = grid.configuration.label
  const reads = ctx.poses.map(({ height_m, reach_m = 0, t = 0 }) => {
    const out_m = reach_m + beyond_m
    const { gross_kg } = ratingAt(axes, grid.configuration, height_m, out_m, 'worse-row')
    return { height_m, out_m, t, kg: gross_kg === 'not-rated' ? null : gross_kg }
  })
  const [first] = reads
  if (!first) return []
  const least = reads.reduce((a, b) => ((b.kg ?? -1) < (a.kg ?? -1) ? b : a), first)
  const where = { step: ctx.index, t: least.t }
  const detail = { table: label, height_m: least.height_m, reach_m: least.out_m }
  if (least.kg === null) return [{ ...found({ check: 'rating', verdict: 'outside', reason: 'off-grid', detail }), where }]
  const utilisation = shareOf(worst, least.kg)
  const figures = { quantity: 'mass', measured: worst, nominal, limit: least.kg, utilisation } as const
  return [
    { ...found({ check: 'rating', verdict: byUse(utilisation, ctx.near_share), reason: 'grid', ...figures, detail }), where },
  ]
}

/** The load against the plate; forks and tool are in its figures. */
export function truckRating(ctx: TruckContext): Finding[] {
  const { plan, step, mass_kg, machine, near_share } = ctx
  if (!step.laden) return [found({ check: 'rating', verdict: 'inside', reason: 'nothing-on', detail: {} })]
  if (mass_kg === null) return []
  if (!plan.lift.hung.load.cg) return missing('not-measured', 'the load’s centre from the face of the forks')
  if (ctx.truck.reach) return gridRating(ctx, mass_kg)
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
