import { type Crane, liftsOnHook } from '../machine/crane'
import type { Machine } from '../machine/machine'
import { boomModelOf } from '../parts/booms/boom-model'
import type { RatingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { gustAtHeight_mps } from '../wind/wind-at-height'
import { windLimit } from '../wind/wind-limit'
import { type Random, spread } from './lots'

/** What can be wrong with how somebody reckoned a load's wind: its own sail, gusts over the mean, the height of the tip left out. */
export const windFaults = ['sail-left-out', 'mean-for-gusts', 'height-left-out'] as const
export type WindFault = (typeof windFaults)[number]

/** Somebody reckoned the gusts at the tip and the wind that a load may be lifted in, and lifts: what is wrong with it? */
export interface WindItem {
  of: 'wind'
  table: string
  /** The wind that the table allows, and for how much sail. */
  chart: { limit_mps: number; referenceArea_m2_per_t: number }
  /** Forecast: mean over ten minutes at ten metres. */
  mean_mps: number
  height_m: number
  /** A sheet across the wind. */
  load: { mass_kg: number; width_m: number; height_m: number; dragCoefficient: number }
  said: WindFigures
  right: WindFigures
  wrong: WindFault | 'nothing'
}

/** Gusts at the tip, and the most that the load may be lifted in, m/s. */
export interface WindFigures {
  gust_mps: number
  limit_mps: number
}

const dragCoefficient = 1.2
/** Below this a tip is no further up than the forecast counts for. */
const high_m = 18
const most_tries = 40
/** What is lifted uses so much of its limit at most; what must not is over it by so much at least. */
const [clear_share, over_share] = [0.9, 1.06]
const tenths = (v: number) => Math.round(10 * v) / 10

/** How high its tip stands half as far out as it reaches: the least and the most of its lengths, metres. */
function tipsOf({ boom }: Crane): [least: number, most: number] {
  const heights = boom.lengths_m.map((boom_m) => {
    const model = boomModelOf(boom, boom_m)
    return model.poseAtRadius(boom_m, model.furthest_m(boom_m) / 2).tip_height_m
  })
  return [Math.min(...heights), Math.max(...heights)]
}

const windTables = (tables: readonly RatingTable[]) => tables.flatMap((t) => (t.wind ? [{ table: t, wind: t.wind }] : []))

/** Which mistakes can be made with the wind on a machine: of a crane whose table says what it allows. */
export function windFaultsOf(machine: Machine, tables: readonly RatingTable[]): WindFault[] {
  if (!liftsOnHook(machine) || windTables(tables).length === 0) return []
  try {
    const [, most_m] = tipsOf(machine)
    return windFaults.filter((f) => f !== 'height-left-out' || most_m >= high_m)
  } catch (e) {
    if (e instanceof Refusal) return []
    throw e
  }
}

/** As it is reckoned, with one thing left out or with nothing. */
function reckoned(of: Pick<WindItem, 'chart' | 'mean_mps' | 'height_m' | 'load'>, without: WindFault | null): WindFigures {
  const { chart, mean_mps, height_m, load } = of
  const limit = windLimit({
    chartLimit_mps: chart.limit_mps,
    referenceArea_m2_per_t: chart.referenceArea_m2_per_t,
    mass_kg: load.mass_kg,
    sailArea_m2: without === 'sail-left-out' ? 0 : load.width_m * load.height_m,
    dragCoefficient: load.dragCoefficient,
  })
  const gust_mps =
    without === 'mean-for-gusts' ? mean_mps : gustAtHeight_mps(mean_mps, without === 'height-left-out' ? 10 : height_m)
  return { gust_mps: tenths(gust_mps), limit_mps: tenths(limit.limit_mps) }
}

/** A load, a tip and a forecast drawn by lot. */
function drawn(
  random: Random,
  machine: Crane,
  tables: readonly RatingTable[],
  { fault, level }: { fault: WindFault | null; level: number },
): Pick<WindItem, 'table' | 'chart' | 'mean_mps' | 'height_m' | 'load'> | null {
  const all = windTables(tables)
  const one = all[Math.floor(random() * all.length)]
  if (!one) return null
  const [least_m, most_m] = tipsOf(machine)
  const from_m = fault === 'height-left-out' ? Math.max(high_m, least_m) : least_m
  const height_m = Math.round(spread(random, Math.min(from_m, most_m), most_m))
  const greatest_kg = Math.max(
    ...one.table.configurations.flatMap((c) => c.rows.flatMap((r) => r.ratings_kg.map((kg) => kg ?? 0))),
  )
  const mass_kg = Math.max(10, Math.round((greatest_kg * spread(random, 0.04, 0.2)) / 10) * 10)
  // So much sail against what the table counts with: half of all loads have more.
  const much = fault === 'sail-left-out' || random() < 0.4
  const share = much ? spread(random, 1.5, 2 + 3 * (1 - level)) : spread(random, 0.3, 0.8)
  const area_m2 = (share * one.wind.referenceArea_m2_per_t * mass_kg) / 1000 / dragCoefficient
  const width_m = tenths(Math.max(0.3, Math.sqrt(area_m2 * spread(random, 0.8, 1.8))))
  const load = { mass_kg, width_m, height_m: Math.max(0.1, tenths(area_m2 / width_m)), dragCoefficient }
  const { limit_mps } = reckoned({ chart: one.wind, mean_mps: 1, height_m, load }, null)
  const gust =
    limit_mps * (fault ? spread(random, over_share, over_share + 0.1 + 0.5 * (1 - level)) : spread(random, 0.4, clear_share))
  return { table: one.table.id, chart: one.wind, mean_mps: tenths(gust / gustAtHeight_mps(1, height_m)), height_m, load }
}

/**
 * A load's wind reckoned with one mistake, or with none; null: none that is told apart was found. With a mistake it looks as if it might be
 * lifted and may not be.
 *
 * @example windItem(randomFrom(1), tern, [ternTable], { wrong: 'sail-left-out', level: 0, right: false })?.said.limit_mps // the table's own
 */
export function windItem(
  random: Random,
  machine: Machine,
  tables: readonly RatingTable[],
  { wrong, level, right }: { wrong: WindFault; level: number; right: boolean },
): WindItem | null {
  if (!liftsOnHook(machine)) return null
  const fault = right ? null : wrong
  for (let i = 0; i < most_tries; i++) {
    const of = drawn(random, machine, tables, { fault, level })
    if (!of) return null
    const [said, is] = [reckoned(of, fault), reckoned(of, null)]
    // No other mistake comes to the same figures.
    const same = (f: WindFault) => {
      const by = reckoned(of, f)
      return by.gust_mps === said.gust_mps && by.limit_mps === said.limit_mps
    }
    if (fault && windFaults.some((f) => f !== fault && same(f))) continue
    const fine = fault
      ? said.gust_mps <= said.limit_mps && is.gust_mps > is.limit_mps * 1.04
      : is.gust_mps <= is.limit_mps * clear_share
    if (fine) return { of: 'wind', ...of, said, right: is, wrong: fault ?? 'nothing' }
  }
  return null
}
