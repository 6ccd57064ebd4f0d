import { isSlewing, type MachineModel } from '../machine/model'
import { telescopicBoom } from '../parts/booms/telescopic'
import { lineLimit_kg } from '../parts/hoists/rope'
import type { SlewingParts } from '../parts/stability/slewing'
import { upperMasses } from '../parts/superstructure'
import { g_mps2, normalDegrees, rad } from '../physics'
import { atSlew } from '../plane/point'
import { Refusal } from '../refusal'
import { prepareFootprint } from '../statics/footprint'
import { resultantAt, sumFixed, sumSlewing } from '../statics/resultant'
import { ratedByRule, type StabilityRule, tippingAt } from '../statics/tipping-load'
import type { RatingTable } from './rating-table'

/** What physics allows in a cell: kg, nothing at all (0, out of reach), or null where this model cannot say. */
export type CellLimit = (row: number | string, column: number | string) => number | null

const allRules: readonly StabilityRule[] = ['75%', '85%', '1.25P+0.1F']
const step_deg = 1

interface Sweep {
  footprint: readonly { id: string; x_m: number; y_m: number }[]
  counterweight_kg: number
  rules: readonly StabilityRule[]
  stands: (slew_deg: number) => boolean
}

/** Least rating by stability over the slews a configuration covers, kg; 0 where the boom does not reach. */
export function slewingLimit_kg(m: SlewingParts, s: Sweep, boom_m: number, radius_m: number, angle_deg: number): number {
  const f = prepareFootprint(s.footprint)
  const cw = m.upper.counterweights.find((c) => c.mass_kg === s.counterweight_kg)
  if (!cw) {
    throw new Refusal(
      'unknown-counterweight',
      `${m.name} has no counterweight of ${s.counterweight_kg} kg; the table names one that is not in the model.`,
      'table',
    )
  }
  const fixed = sumFixed(m.chassis.masses, {})
  const boom = telescopicBoom(m.boom)
  const slewing = sumSlewing([...upperMasses(m.upper, cw), ...boom.massesAt(boom_m, angle_deg)])
  const head_kg = boom.headMass_kg(boom_m)
  let least = Infinity
  for (let slew = 0; slew < 360; slew += step_deg) {
    if (!s.stands(slew)) continue
    const t = tippingAt(f, resultantAt(fixed, slewing, slew), atSlew(radius_m, slew)).tippingLoad_kg
    if (t === null) continue
    for (const rule of s.rules) least = Math.min(least, ratedByRule(t, rule, head_kg))
  }
  return least
}

const between = (from_deg: number, to_deg: number) => (slew: number) => {
  const width = normalDegrees(to_deg - from_deg) || 360
  return normalDegrees(slew - from_deg) <= width + 1e-9
}

/** Runs a limit; where the machine would not stand even without a load, or does not reach, nothing is allowed. */
function orNothing(limit: () => number): number {
  try {
    return limit()
  } catch (e) {
    if (e instanceof Refusal && (e.code === 'unstable-unloaded' || e.code === 'out-of-reach')) return 0
    throw e
  }
}

/** Forward tipping of a truck, kg, with a load at a distance ahead of the edge. */
function truckLimit(
  t: NonNullable<MachineModel['truck']>,
  ahead: { edge_m: number; arm_m: number; restoring_kgm?: number; attachment?: { mass_kg: number; ahead_m: number } },
) {
  const restoring = t.mass_kg * (t.cgBehindFront_m + ahead.edge_m) + (ahead.restoring_kgm ?? 0)
  const boom = t.boom ? t.boom.mass_kg * (t.boom.share * (ahead.arm_m + ahead.edge_m) - ahead.edge_m) : 0
  const attached = ahead.attachment ? ahead.attachment.mass_kg * (ahead.arm_m - ahead.attachment.ahead_m) : 0
  if (ahead.arm_m <= 0) return Infinity
  return Math.max(0, t.share * (restoring - boom - attached)) / ahead.arm_m
}

/**
 * What the machine's own geometry and masses allow in each cell of a table's configuration. It never makes a rating: a table
 * is checked against it, and may be lower for reasons of strength that only the maker knows.
 *
 * @throws Refusal `no-model` when the model lacks the parts that this shape of table is judged by.
 */
export function cellLimit(m: MachineModel, t: RatingTable, configuration: string): CellLimit {
  const missing = (part: string) =>
    new Refusal('no-model', `${m.name}’s geometry has no ${part}, which this table is checked against.`, `machine.${part}`)
  const c = t.configurations.find((x) => x.id === configuration)
  if (!c) throw new Refusal('unknown-configuration', 'This table has no such configuration.', 'configuration')
  switch (t.shape) {
    case 'boom-radius':
    case 'lattice':
    case 'radius-section': {
      if (!isSlewing(m)) throw missing('boom')
      const k = c as (typeof t.configurations)[number]
      const rules: readonly StabilityRule[] = t.stabilityRule === '85%' && !k.fullyExtended ? ['75%'] : [t.stabilityRule]
      const sweep = {
        footprint: k.footprint,
        counterweight_kg: k.counterweight_kg,
        rules,
        stands: k.sector ? between(k.sector.from_deg, k.sector.to_deg) : () => true,
      }
      return (radius, boom) =>
        orNothing(() => {
          const pose = telescopicBoom(m.boom).poseAtRadius(Number(boom), Number(radius))
          if (pose.angle_deg > m.boom.maxAngle_deg + 0.5 || pose.angle_deg < m.boom.minAngle_deg - 0.5) return 0
          return slewingLimit_kg(m, sweep, Number(boom), Number(radius), pose.angle_deg)
        })
    }
    case 'angle-stage': {
      if (!isSlewing(m)) throw missing('boom')
      const k = c as (typeof t.configurations)[number]
      const shut = k.forbidden.map((f) => between(f.from_deg, f.to_deg))
      const sweep = {
        footprint: k.footprint,
        counterweight_kg: k.counterweight_kg,
        rules: allRules.slice(0, 1),
        stands: (s: number) => !shut.some((f) => f(s)),
      }
      return (angle, boom) =>
        orNothing(() => {
          const { radius_m } = telescopicBoom(m.boom).poseAtAngle(Number(boom), Number(angle))
          return radius_m <= 0 ? Infinity : slewingLimit_kg(m, sweep, Number(boom), radius_m, Number(angle))
        })
    }
    case 'radius-reeving': {
      const { tower, hoist } = m
      if (!tower) throw missing('tower')
      if (!hoist) throw missing('hoist')
      const k = c as (typeof t.configurations)[number]
      return (radius, parts) => {
        if (Number(radius) > Math.min(k.jib_m, tower.jib_m) + 1e-9) return 0
        const { linePull_N, leadSheaves, sheaveEfficiency } = hoist
        return Math.min(
          tower.moment_kgm / Number(radius),
          lineLimit_kg({ linePull_N, leadSheaves, sheaveEfficiency, parts: Number(parts) }),
        )
      }
    }
    case 'height-reach': {
      const truck = m.truck
      if (!truck) throw missing('truck')
      const k = c as (typeof t.configurations)[number]
      const attachment = truck.attachments?.find((a) => a.id === k.attachment)
      return (height, reach) =>
        truckLimit(truck, {
          edge_m: k.edgeAhead_m,
          arm_m: Number(reach) + truck.faceToAxle_m + truck.give_share * Number(height) - k.edgeAhead_m,
          ...(attachment ? { attachment } : {}),
        })
    }
    case 'plate': {
      const truck = m.truck
      if (!truck) throw missing('truck')
      const k = c as (typeof t.configurations)[number]
      const attachment = k.attachment === undefined ? undefined : truck.attachments?.find((a) => a.id === k.attachment)
      const lean = k.mast === 'forward' ? Math.sin((truck.forwardTilt_deg ?? 0) * rad) : 0
      return (height, centre) =>
        truckLimit(truck, {
          edge_m: 0,
          arm_m: truck.faceToAxle_m + (attachment?.ahead_m ?? 0) + Number(centre) + (truck.give_share + lean) * Number(height),
          ...(attachment ? { attachment: { mass_kg: attachment.mass_kg, ahead_m: Number(centre) } } : {}),
        })
    }
    case 'slabs-extension': {
      const truck = m.truck
      if (!truck) throw missing('truck')
      const { slab } = truck
      if (!slab) throw missing('truck.slab')
      const k = c as (typeof t.configurations)[number]
      const attachment = truck.attachments?.find((a) => a.id === k.tool)
      return (extension, slabs) =>
        truckLimit(truck, {
          edge_m: 0,
          arm_m: truck.faceToAxle_m + k.loadCentre_m,
          restoring_kgm: Number(slabs) * slab.mass_kg * (slab.behindFront_m + Number(extension)),
          ...(attachment ? { attachment } : {}),
        })
    }
    case 'tool-reach': {
      const truck = m.truck
      if (!truck) throw missing('truck')
      const k = c as (typeof t.configurations)[number]
      return (reach) => {
        const arm_m = Number(reach) + truck.faceToAxle_m
        return truckLimit(truck, { edge_m: 0, arm_m, attachment: { mass_kg: k.tool_kg, ahead_m: 0 } })
      }
    }
    case 'height-stage': {
      const { gantry } = m
      if (!gantry) throw missing('gantry')
      return (height) => {
        const stage = gantry.stages.find((s) => Number(height) <= s.upTo_m + 1e-9)
        return stage ? (gantry.share * gantry.working_kPa * 1000 * stage.piston_m2) / g_mps2 : 0
      }
    }
    case 'hoists': {
      const { hoists } = m
      if (!hoists) throw missing('hoists')
      const one = (h: (typeof hoists.each)[number]) =>
        lineLimit_kg({
          linePull_N: h.linePull_N,
          parts: h.parts,
          leadSheaves: hoists.leadSheaves,
          sheaveEfficiency: hoists.sheaveEfficiency,
        })
      return (id) => {
        const h = hoists.each.find((x) => x.id === id)
        return h
          ? one(h)
          : Math.min(
              hoists.frame_kg,
              hoists.each.reduce((s, x) => s + one(x), 0),
            )
      }
    }
    case 'marks': {
      const { runway } = m
      if (!runway) throw missing('runway')
      const { beam } = runway
      return (part) =>
        part === 'trolley'
          ? runway.wheels * runway.perWheel_kg
          : part === 'beam'
            ? (4 * beam.allowable_MPa * beam.modulus_cm3) / beam.span_m / g_mps2
            : runway.falls * runway.perFall_kg
    }
  }
}
