import { isSlewing, type MachineModel } from '../../machine/model'
import { straightBoom } from '../../parts/booms/boom-model'
import type { SlewingParts } from '../../parts/stability/slewing'
import { upperMasses } from '../../parts/superstructure'
import { atSlew } from '../../plane/point'
import { Refusal } from '../../refusal'
import { prepareFootprint } from '../../statics/footprint'
import { resultantAt, sumFixed, sumSlewing } from '../../statics/resultant'
import { ratedByRule, type StabilityRule, tippingAt } from '../../statics/tipping-load'
import { ratedAtSlew } from '../read'
import { type RatingConfiguration, type RatingTable, saysStanding } from '../table'
import { type LimitOf, partOf } from './limit-of'

const step_deg = 1
/** A boom that lies this little beyond its own angles is at them: tables give radii to the decimetre. */
const angleGrace_deg = 0.5

interface Sweep {
  footprint: readonly { id: string; x_m: number; y_m: number }[]
  counterweight_kg: number
  rule: StabilityRule
  /** Slews that are looked at: by whole degrees, and on each border of what is rated, where it is often worst. */
  slews_deg: readonly number[]
}

/** Least rating by stability over the slews a configuration covers, kg. */
function slewingLimit_kg(m: SlewingParts, s: Sweep, boom_m: number, radius_m: number, angle_deg: number): number {
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
  const boom = straightBoom(m.boom)
  const slewing = sumSlewing([...upperMasses(m.upper, cw), ...boom.massesAt(boom_m, angle_deg)])
  const head_kg = boom.headMass_kg(boom_m)
  let least = Infinity
  for (const slew of s.slews_deg) {
    const t = tippingAt(f, resultantAt(fixed, slewing, slew), atSlew(radius_m, slew)).tippingLoad_kg
    if (t !== null) least = Math.min(least, ratedByRule(t, s.rule, head_kg))
  }
  return least
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

const slewingParts = (m: MachineModel) => partOf(m, 'boom', isSlewing(m) ? m : undefined)

function slewsOf(c: RatingConfiguration): number[] {
  const { sector, forbidden = [] } = c.appliesTo
  const whole = Array.from({ length: Math.ceil(360 / step_deg) }, (_, i) => i * step_deg).filter((slew) => ratedAtSlew(c, slew))
  return [...whole, ...[...(sector ? [sector] : []), ...forbidden].flatMap((s) => [s.from_deg, s.to_deg])]
}

/** How a configuration says that the machine stands. 85 % holds for outriggers fully out only; a table without a rule has the 75 %. */
function sweepOf(c: RatingConfiguration, t: RatingTable): Sweep {
  if (!saysStanding(c)) throw new Refusal('bad-input', 'This configuration does not say how the machine stands.', 'table')
  const { footprint, counterweight_kg, fullyExtended } = c.appliesTo.standing
  const rule = t.stabilityRule ?? '75%'
  return {
    footprint,
    counterweight_kg,
    rule: rule === '85%' && !fullyExtended ? '75%' : rule,
    slews_deg: slewsOf(c),
  }
}

export const slewingRadiusLimit: LimitOf = (model, c, t) => {
  const m = slewingParts(model)
  const sweep = sweepOf(c, t)
  return (radius, boom) =>
    orNothing(() => {
      const { angle_deg } = straightBoom(m.boom).poseAtRadius(Number(boom), Number(radius))
      if (angle_deg > m.boom.maxAngle_deg + angleGrace_deg || angle_deg < m.boom.minAngle_deg - angleGrace_deg) return 0
      return slewingLimit_kg(m, sweep, Number(boom), Number(radius), angle_deg)
    })
}

export const slewingAngleLimit: LimitOf = (model, c, t) => {
  const m = slewingParts(model)
  const sweep = sweepOf(c, t)
  return (angle, boom) =>
    orNothing(() => {
      const { radius_m } = straightBoom(m.boom).poseAtAngle(Number(boom), Number(angle))
      return radius_m <= 0 ? Infinity : slewingLimit_kg(m, sweep, Number(boom), radius_m, Number(angle))
    })
}
