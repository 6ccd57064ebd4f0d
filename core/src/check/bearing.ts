import { type GroundPressure, groundPressure } from '../ground/ground-pressure'
import type { Case } from '../lift/case'
import type { LegSetting } from '../lift/plan'
import type { StandingAt } from '../parts/stability/stability'
import type { BearingPoint } from '../parts/supports/support'
import { normalDegrees } from '../physics'
import type { LegEnvelope } from '../statics/reaction-envelope'

/** What one outrigger carries over the whole path, and what that makes of the ground below it. */
export interface Bearing {
  point: BearingPoint
  setting: LegSetting
  /** By the site's rule: the upper bound, or of an even, elastic ground, newtons. */
  reaction_N: number
  /** Where on the path that is. */
  at: { radius_m: number; slew_deg: number }
  worst: LegEnvelope
  max_N: number
  upper_N: number
  min_N: number
  min_at_deg: number
  pressed: GroundPressure
}

/** The greatest and least that each outrigger carries over all radii of the path. */
export function bearingsOf(
  points: readonly BearingPoint[],
  { setup, policy }: Pick<Case, 'setup' | 'policy'>,
  stands: readonly StandingAt[],
): Bearing[] {
  const key = policy.legLoads === 'upper' ? 'upper_N' : 'max_N'
  return points.flatMap((point) => {
    const setting = setup.legs.find((s) => s.id === point.id)
    const seen = stands.flatMap((stand) => {
      const envelope = stand.legs.supports.find((x) => x.id === point.id)
      return envelope ? [{ envelope, radius_m: stand.radius_m }] : []
    })
    const [first] = seen
    if (!setting || !first) return []
    const worst = seen.reduce((a, b) => (b.envelope[key] > a.envelope[key] ? b : a), first)
    const least = seen.reduce((a, b) => (b.envelope.min_N < a.envelope.min_N ? b : a), first).envelope
    const reaction_N = worst.envelope[key]
    const slew_deg = normalDegrees(policy.legLoads === 'upper' ? worst.envelope.upper_at_deg : worst.envelope.max_at_deg)
    const { ground, mat } = setting
    return [
      {
        point,
        setting,
        reaction_N,
        at: { radius_m: worst.radius_m, slew_deg },
        worst: worst.envelope,
        max_N: Math.max(...seen.map((s) => s.envelope.max_N)),
        upper_N: Math.max(...seen.map((s) => s.envelope.upper_N)),
        min_N: least.min_N,
        min_at_deg: normalDegrees(least.min_at_deg),
        pressed: groundPressure({
          reaction_N,
          pad: point.pad,
          mat: mat ?? undefined,
          allowable_kPa: ground?.allowable_kPa,
          soil: ground?.soil,
        }),
      },
    ]
  })
}
