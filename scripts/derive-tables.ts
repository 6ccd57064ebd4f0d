/**
 * Derives the demo's rating tables from each machine's invented geometry and masses with the core's own rules, rounded down
 * as a maker would, and writes them as open-format files. Run after changing a machine: `npm run derive-tables`.
 */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import {
  atSlew,
  cellLimit,
  counterweightNamed,
  feetOf,
  liftsOnOutriggers,
  machineModel,
  type Outrigger,
  type OutriggerCrane,
  poseMachine,
  prepareFootprint,
  type RatingTable,
  Refusal,
  ratedByRule,
  ratingTable,
  resultantAt,
  stabilityRule,
  stopsOf,
  sumSlewing,
  type TableAxes,
  type Trend,
  tableAxes,
  telescopicBoom,
  tippingAt,
  upperReactions,
  withCell,
} from '@geolabe/core'
import { z } from 'zod'
import { readMachineFile } from '../server/src/demo/files'

const side = z.enum(['retracted', 'intermediate', 'fullyExtended'])
const derivation = z.strictObject({
  machine: z.string(),
  table: z.string(),
  title: z.string(),
  enteredBy: z.string(),
  document: z.string(),
  checkedBy: z.string().nullable(),
  stabilityRule,
  level_deg: z.number(),
  wind: z.strictObject({ limit_mps: z.number(), referenceArea_m2_per_t: z.number() }),
  linearPermitted: z.boolean(),
  radii_m: z.array(z.number()),
  structural: z.array(z.strictObject({ boom_m: z.number(), greatest_kg: z.number(), moment_kgm: z.number() })),
  settings: z.array(
    z.strictObject({
      id: z.string(),
      label: z.string(),
      left: side,
      right: side,
      sector: z.strictObject({ from_deg: z.number(), to_deg: z.number() }).optional(),
      dependsOn: z.array(z.string()).optional(),
    }),
  ),
})
type Derivation = z.infer<typeof derivation>

const isLeft = (o: Outrigger) => stopsOf(o).every((s) => s.y_m > 0)
const read = (path: string) => JSON.parse(readFileSync(path, 'utf8'))
/** The wind and jerk a maker leaves room for when a leg's strength sets the rating. */
const legFactor = 1.1
const leastWorthRating_kg = 250

function ratingAt(
  machine: OutriggerCrane,
  d: Derivation,
  setting: Derivation['settings'][number],
  counterweight: string,
  boom_m: number,
  radius_m: number,
) {
  const outriggers = machine.outriggers.map((l) => ({
    id: l.id,
    at: { stop: isLeft(l) ? setting.left : setting.right },
  }))
  const f = prepareFootprint(feetOf(machine.outriggers, outriggers))
  const s = d.structural.find((x) => x.boom_m === boom_m)
  if (!s) return null
  try {
    const posed = poseMachine(
      machine,
      counterweightNamed(machine.name, machine.upper, counterweight),
      telescopicBoom(machine.boom),
      {
        boom_m,
        radius_m,
      },
    )
    if (posed.pose.angle_deg > machine.boom.maxAngle_deg || posed.pose.angle_deg < machine.boom.minAngle_deg) return null
    const from = setting.sector?.from_deg ?? 0
    const to = setting.sector?.to_deg ?? 360
    let stability_kg = Infinity
    let structural_kg = Math.min(s.greatest_kg, s.moment_kgm / radius_m)
    const upper = new Float64Array(f.supports.length)
    for (let slew = from; slew <= to; slew += 0.5) {
      const unloaded = resultantAt(posed.fixed, posed.slewing, slew)
      const hook = atSlew(radius_m, slew)
      const t = tippingAt(f, unloaded, hook).tippingLoad_kg
      if (t !== null)
        stability_kg = Math.min(stability_kg, ratedByRule(t, d.stabilityRule, telescopicBoom(machine.boom).headMass_kg(boom_m)))
      // Legs: the greatest load that keeps every leg inside its strength, by halving.
      let [lo, hi] = [0, structural_kg]
      for (let i = 0; i < 20; i++) {
        const kg = i === 0 ? hi : (lo + hi) / 2
        const hung = sumSlewing([{ mass_kg: kg * legFactor, radius_m }])
        const r = resultantAt(
          posed.fixed,
          {
            force_N: posed.slewing.force_N + hung.force_N,
            along_Nm: posed.slewing.along_Nm + hung.along_Nm,
            across_Nm: posed.slewing.across_Nm,
          },
          slew,
        )
        upperReactions(f, r.x_m, r.y_m, r.force_N, upper)
        const fits = machine.outriggers.every((l, j) => (upper[j] ?? 0) <= l.capacity_N)
        if (fits) lo = kg
        else hi = kg
        if (fits && i === 0) break
      }
      structural_kg = Math.min(structural_kg, Math.max(lo, 0))
    }
    const least = Math.min(stability_kg, structural_kg)
    const step = least > 5000 ? 100 : 50
    const kg = Math.floor(least / step) * step
    return kg < leastWorthRating_kg
      ? null
      : { kg, basis: stability_kg < structural_kg ? ('stability' as const) : ('structural' as const) }
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

const boomAxes = {
  row: { quantity: 'radius_m', label: 'Radius', reading: 'neighbours', trend: 'falls' },
  column: { quantity: 'boom_m', label: 'Boom', reading: 'neighbours', trend: null },
} satisfies TableAxes

function derive(d: Derivation): RatingTable {
  const machine = readMachineFile(d.machine)
  if (!liftsOnOutriggers(machine)) throw new Error(`${d.machine} is no crane`)
  const configurations = d.settings.flatMap((setting) =>
    machine.upper.counterweights.map((cw) => {
      const lengths = machine.boom.lengths_m
      const before = lengths.map(() => Infinity)
      const rows = d.radii_m
        .map((radius_m) => {
          const cells = lengths.map((boom_m, i) => {
            const r = ratingAt(machine, d, setting, cw.id, boom_m, radius_m)
            // Never rising with radius: a maker reads down the column.
            if (!r) return null
            before[i] = Math.min(before[i] ?? Infinity, r.kg)
            return { ...r, kg: before[i] as number }
          })
          return { at: radius_m, ratings_kg: cells.map((c) => c?.kg ?? null), basis: cells.map((c) => c?.basis ?? null) }
        })
        .filter((r) => r.ratings_kg.some((k) => k !== null))
      const outriggers = machine.outriggers.map((l) => ({
        id: l.id,
        at: { stop: isLeft(l) ? setting.left : setting.right },
      }))
      return {
        id: `${setting.id}-${cw.id}`,
        label: `${setting.label} · ${cw.label.toLowerCase()}`,
        appliesTo: {
          standing: {
            footprint: feetOf(machine.outriggers, outriggers).map(({ id, x_m, y_m }) => ({ id, x_m, y_m })),
            counterweight_kg: cw.mass_kg,
            fullyExtended: setting.left === 'fullyExtended' && setting.right === 'fullyExtended',
          },
          ...(setting.sector
            ? { sector: { ...setting.sector, ...(setting.dependsOn ? { dependsOn: setting.dependsOn } : {}) } }
            : {}),
        },
        columns: lengths,
        rows,
      }
    }),
  )
  return ratingTable.parse({
    format: 'geolabe.table/1',
    id: d.table,
    machine: d.machine,
    title: d.title,
    revision: 1,
    enteredBy: d.enteredBy,
    document: d.document,
    checkedBy: d.checkedBy,
    axes: boomAxes,
    ...(d.linearPermitted ? { linearPermitted: true } : {}),
    stabilityRule: d.stabilityRule,
    wind: d.wind,
    level_deg: d.level_deg,
    configurations: configurations.filter((c) => c.rows.length > 0),
  })
}

/** One row a line: a table is read by people, too. */
const compact = (json: string) =>
  json.replace(/\[\s+([^[\]{}]*?)\s+\]/g, (_, inner: string) => `[${inner.replace(/\s*\n\s*/g, ' ')}]`)

/** By any other axes: rows by their figures, physics from the core's own limits, strength as ceilings. */
const shapeDerivation = z.strictObject({
  format: z.literal('geolabe.derivation/1'),
  table: z.looseObject({
    machine: z.string(),
    axes: tableAxes,
    configurations: z.array(
      z.looseObject({
        id: z.string(),
        columns: z.array(z.union([z.number(), z.string()])),
        rows: z.array(z.union([z.number(), z.string()])),
      }),
    ),
  }),
  /** By configuration, or “*”: greatest rating of each column, and its moment about the slew centre. */
  ceilings: z.record(
    z.string(),
    z.strictObject({
      greatest_kg: z.array(z.number()),
      moment_kgm: z.array(z.number()).optional(),
      share: z.number().optional(),
    }),
  ),
  /** Where a boom can reach at all: from a pivot, height and reach. */
  envelope: z.strictObject({ radius_m: z.number(), height_m: z.number(), back_m: z.number() }).optional(),
  round_kg: z.number(),
  least_kg: z.number(),
})

function deriveShape(d: z.infer<typeof shapeDerivation>): RatingTable {
  const model = machineModel.parse(read(`demo/models/${d.table.machine}.json`))
  const { row, column } = d.table.axes
  const blank = ratingTable.parse({
    ...d.table,
    configurations: d.table.configurations.map((c) => ({
      ...c,
      rows: c.rows.map((at) => ({ at, ratings_kg: c.columns.map(() => null) })),
    })),
  })
  const filled = blank.configurations.map((g) => {
    const limit = cellLimit(model, blank, g.id)
    const ceiling = d.ceilings[g.id] ?? d.ceilings['*']
    if (!ceiling) throw new Error(`${d.table.machine}: no ceiling for ${g.id}`)
    const cells = g.rows.map(({ at: r }) =>
      g.columns.map((c, j) => {
        const e = d.envelope
        if (e && Math.hypot(Number(c) + e.back_m, Number(r) - e.height_m) > e.radius_m) return null
        const strength = ceiling.moment_kgm ? (ceiling.moment_kgm[j] as number) / Number(r) : Infinity
        const kg = Math.min((limit(r, c) ?? 0) * (ceiling.share ?? 1), ceiling.greatest_kg[j] as number, strength)
        const rounded = Math.floor(kg / d.round_kg + 1e-9) * d.round_kg
        return rounded < d.least_kg ? null : rounded
      }),
    )
    return ordered(cells, row.trend, column.trend)
  })
  let table: RatingTable = blank
  blank.configurations.forEach((g, k) => {
    filled[k]?.forEach((cells, i) => {
      cells.forEach((kg, j) => {
        table = withCell(table, { configuration: g.id, row: i, column: j }, kg)
      })
    })
  })
  return ratingTable.parse({
    ...table,
    configurations: table.configurations.map((c) => ({
      ...c,
      rows: c.rows.filter((r) => r.ratings_kg.some((kg) => kg !== null)),
    })),
  })
}

/** Never against the order in which a maker reads down a column or along a row: lowered until it keeps to it. */
function ordered(cells: (number | null)[][], down: Trend, across: Trend): (number | null)[][] {
  const out = cells.map((r) => [...r])
  const keep = (line: [number, number][], trend: Trend) => {
    const order = trend === 'rises' ? [...line].reverse() : line
    let most = Infinity
    for (const [i, j] of trend === null ? [] : order) {
      const kg = out[i]?.[j] ?? null
      if (kg === null) continue
      most = Math.min(most, kg)
      ;(out[i] as (number | null)[])[j] = most
    }
  }
  for (let pass = 0; pass < 2; pass++) {
    out[0]?.forEach((_, j) => {
      keep(
        out.map((_r, i) => [i, j]),
        down,
      )
    })
    out.forEach((r, i) => {
      keep(
        r.map((_c, j) => [i, j]),
        across,
      )
    })
  }
  return out
}

mkdirSync('demo/tables', { recursive: true })
for (const file of readdirSync('demo/derivations')) {
  const d = read(`demo/derivations/${file}`)
  const table = d.format ? deriveShape(shapeDerivation.parse(d)) : derive(derivation.parse(d))
  writeFileSync(`demo/tables/${table.id}.json`, `${compact(JSON.stringify(table, null, 1))}\n`)
  console.log(`${table.id}: ${table.configurations.length} configurations`)
}
