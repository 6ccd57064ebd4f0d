import { type GroundPressure, groundPressure } from '../ground/ground-pressure'
import type { Case } from '../lift/case'
import type { PeakBetween, StandingAt } from '../parts/stability/stability'
import type { BearingPoint } from '../parts/supports/bearing-point'
import type { OutriggerSetting } from '../parts/supports/outriggers'
import { normalDegrees } from '../physics'

/** What one outrigger carries over the whole path, and what that makes of the ground below it. */
export interface Bearing {
  point: BearingPoint
  setting: OutriggerSetting
  /** By the site's rule: the upper bound, or of an even, elastic ground, newtons. */
  reaction_N: number
  /** Of an even, elastic ground, newtons. */
  elastic_N: number
  /** Where on the path it carries that. */
  at: { radius_m: number; slew_deg: number }
  /** It carries most with the hook empty: before the load is taken, or after it is let go. */
  empty: boolean
  max_N: number
  upper_N: number
  /** The least with the load on, newtons, and where. */
  min_N: number
  min_at_deg: number
  pressed: GroundPressure
}

/** One place where an outrigger may carry most. */
interface Candidate {
  reaction_N: number
  elastic_N: number
  upper_N: number
  at: { radius_m: number; slew_deg: number }
  empty: boolean
}

/** Laden and empty, at every radius that was looked at, and between them. */
function candidatesOf(id: string, byUpper: boolean, stands: readonly StandingAt[], peaks: readonly PeakBetween[]): Candidate[] {
  const atRadii = stands.flatMap(({ radius_m, laden, empty }) =>
    [laden, empty].flatMap((supports) => {
      const e = supports.find((x) => x.id === id)
      if (!e) return []
      const slew_deg = normalDegrees(byUpper ? e.upper_at_deg : e.max_at_deg)
      const { max_N: elastic_N, upper_N } = e
      const reaction_N = byUpper ? upper_N : elastic_N
      return [{ reaction_N, elastic_N, upper_N, at: { radius_m, slew_deg }, empty: supports === empty }]
    }),
  )
  const elastic_N = Math.max(...atRadii.map((c) => c.elastic_N))
  const between = peaks.filter((p) => p.id === id)
  return [
    ...atRadii,
    ...between.map(({ upper_N, radius_m, slew_deg, empty }) => ({
      reaction_N: upper_N,
      elastic_N,
      upper_N,
      at: { radius_m, slew_deg: normalDegrees(slew_deg) },
      empty,
    })),
  ]
}

/** The greatest and least that each outrigger carries over the whole path, with the load on and with the hook empty. */
export function bearingsOf(
  points: readonly BearingPoint[],
  settings: readonly OutriggerSetting[],
  policy: Case['policy'],
  stands: readonly StandingAt[],
  peaks: readonly PeakBetween[],
): Bearing[] {
  return points.flatMap((point) => {
    const setting = settings.find((s) => s.id === point.id)
    const candidates = candidatesOf(point.id, policy.legLoads === 'upper', stands, peaks)
    const laden = stands.flatMap((s) => s.laden.filter((x) => x.id === point.id))
    const [first] = candidates
    const [any] = laden
    if (!setting || !first || !any) return []
    const worst = candidates.reduce((a, b) => (b.reaction_N > a.reaction_N ? b : a), first)
    const least = laden.reduce((a, b) => (b.min_N < a.min_N ? b : a), any)
    const { ground, mat } = setting
    const { reaction_N, elastic_N, at, empty } = worst
    return [
      {
        point,
        setting,
        reaction_N,
        elastic_N,
        at,
        empty,
        max_N: Math.max(...candidates.map((c) => c.elastic_N)),
        upper_N: Math.max(...candidates.map((c) => c.upper_N)),
        min_N: least.min_N,
        min_at_deg: normalDegrees(least.min_at_deg),
        pressed: groundPressure({
          reaction_N,
          pad: point.float,
          mat: mat ?? undefined,
          allowable_kPa: ground?.allowable_kPa,
          soil: ground?.soil,
        }),
      },
    ]
  })
}
