import { byUse, type Finding, found } from '../finding/finding'
import { groundPressure } from '../ground/ground-pressure'
import { trackPressure } from '../ground/track-pressure'
import type { Case } from '../lift/case'
import { nth } from '../list'
import { outwardShift_m } from '../parts/stability/stability'
import { upperMasses } from '../parts/superstructure'
import type { TracksPart } from '../parts/supports/tracks'
import { g_mps2, normalDegrees } from '../physics'
import type { GroundKind } from '../place/place'
import { Refusal } from '../refusal'
import { leastOn } from '../search'
import { resultantAt, sumFixed, sumSlewing } from '../statics/resultant'
import { type Layer, NOT_RATED, UNREACHABLE } from './area'
import { LiftContext } from './context'
import { tiltOf } from './tilt'

export const trackSides = ['left', 'right'] as const
export type TrackSide = (typeof trackSides)[number]
const labels: Record<TrackSide, string> = { left: 'Left track', right: 'Right track' }

/** Degrees between the slews looked at, each peak refined between them. */
const [scan_deg, within_deg] = [5, 1e-4]

/** The greatest pressure under a track for a weight acting there, kPa; infinite where it would tip. */
function pressed(track: TracksPart, side: TrackSide, r: { force_N: number; x_m: number; y_m: number }): number {
  try {
    const { tracks } = trackPressure({ force_N: r.force_N, eccentricityLong_m: r.x_m, eccentricityLat_m: r.y_m, track })
    return nth(tracks, side === 'left' ? 0 : 1).max_kPa
  } catch (e) {
    if (e instanceof Refusal) return Infinity
    throw e
  }
}

/** What presses on a track over the whole path: with the load on, what is suspended hung and on the ground, and with the hook empty. */
export interface TrackUse {
  side: TrackSide
  most_kPa: number
  at: { radius_m: number; slew_deg: number }
  empty: boolean
}

export function trackUses(ctx: LiftContext, track: TracksPart): TrackUse[] {
  const { machine, boom, step, path, hook, deflection_m, plan } = ctx
  if (!hook || ctx.reached) return []
  const fixed = sumFixed(machine.chassis.masses, {})
  const outward = { tilt_deg: tiltOf(plan.setup)?.worst_deg ?? 0, wind_N: ctx.wind_N }
  const onBoom = hook.deductions.filter((d) => d.on === 'boom')
  const states = path.radii_m.flatMap((radius_m) => {
    const { angle_deg, tip_height_m } = boom.poseAtRadius(step.boom_m, radius_m, deflection_m)
    const own = boom.massesAt(step.boom_m, angle_deg, onBoom)
    const at_m = radius_m + outwardShift_m(tip_height_m, hook.total_kg, outward)
    const load = { mass_kg: hook.total_kg * plan.policy.dynamicFactor, radius_m: at_m }
    return [
      ...[ctx.counterweight, ctx.unladenCounterweight].map((cw) => ({
        radius_m,
        empty: false,
        masses: [...upperMasses(machine.upper, cw), ...own, load],
      })),
      { radius_m, empty: true, masses: [...upperMasses(machine.upper, ctx.unladenCounterweight), ...own] },
    ]
  })
  const [from, to] = [Math.min(path.arc.from_deg, path.arc.to_deg), Math.max(path.arc.from_deg, path.arc.to_deg)]
  return trackSides.map((side) =>
    states
      .map(({ radius_m, empty, masses }): TrackUse => {
        const slewing = sumSlewing(masses)
        const least = leastOn(
          (deg) => -pressed(track, side, resultantAt(fixed, slewing, deg)),
          from,
          Math.max(to, from + 1e-9),
          scan_deg,
          within_deg,
        )
        return { side, most_kPa: -least.y, at: { radius_m, slew_deg: normalDegrees(least.x) }, empty }
      })
      .reduce((a, b) => (b.most_kPa > a.most_kPa ? b : a)),
  )
}

/** The greatest pressure under either track with the boom at each of some slews, as a lift has it, kPa; infinite where it would tip. */
export function tracksRound(plan: Case, slews_deg: readonly number[]): number[] {
  const ctx = new LiftContext(plan)
  const { tracks } = ctx.machine
  if (!tracks || !ctx.hook || ctx.reached) return []
  return slews_deg.map((deg) => {
    const there = new LiftContext(plan, { path: { ...ctx.path, arc: { from_deg: deg, to_deg: deg } } })
    return Math.max(...trackUses(there, tracks).map((u) => u.most_kPa))
  })
}

/** What the ground takes under a track, and how much of it a pressure uses. */
function onGround(track: TracksPart, ground: GroundKind | null, most_kPa: number) {
  const pad = { length_m: track.length_m, width_m: track.width_m }
  const reaction_N = most_kPa * 1000 * pad.length_m * pad.width_m
  return groundPressure({ reaction_N, pad, allowable_kPa: ground?.allowable_kPa, soil: ground?.soil })
}

/** Pressure under each track against what the ground takes; ends of the tracks bear most. */
export function trackGround(ctx: LiftContext): Finding[] {
  const { machine, plan, near_share } = ctx
  const { standing } = plan.setup
  if (!machine.tracks || standing.on !== 'tracks') return []
  const { tracks } = machine
  const { ground } = standing
  return trackUses(ctx, tracks).flatMap(({ side, most_kPa, at, empty }): Finding[] => {
    // Where it would tip, overturning says so.
    if (!Number.isFinite(most_kPa)) return []
    const { allowable_kPa, presumed, utilisation } = onGround(tracks, ground, most_kPa)
    const detail = { label: labels[side], empty, ground: ground?.label ?? '', source: ground?.source ?? '' }
    const base = { check: 'ground', subject: side, quantity: 'pressure', measured: most_kPa, at } as const
    if (utilisation === null)
      return [found({ ...base, verdict: 'not-proven', reason: ground ? 'nothing-presumed' : 'unknown', detail })]
    const verdict = byUse(utilisation, near_share)
    return [found({ ...base, verdict, reason: presumed ? 'presumed' : 'allowable', limit: allowable_kPa, utilisation, detail })]
  })
}

/** The same in each pose of a working area. */
export function trackLayers(ctx: LiftContext): Layer[] {
  const { machine, plan } = ctx
  const { standing } = plan.setup
  if (!machine.tracks || standing.on !== 'tracks') return []
  const { tracks } = machine
  const fixed = sumFixed(machine.chassis.masses, {})
  const one = onGround(tracks, standing.ground, 1)
  return trackSides.map((side) => ({
    id: `ground:${side}`,
    weighs: true,
    useAt: ({ ring, slew_deg, falls }) => {
      if (!ring.reaches) return NOT_RATED
      if (falls) return UNREACHABLE
      if (one.utilisation === null) return NOT_RATED
      const [c, s] = [Math.cos((slew_deg * Math.PI) / 180), Math.sin((slew_deg * Math.PI) / 180)]
      const at = ({ force_N, along_Nm }: { force_N: number; along_Nm: number }) =>
        pressed(tracks, side, {
          force_N,
          x_m: (fixed.wx_Nm + along_Nm * c) / force_N,
          y_m: (fixed.wy_Nm + along_Nm * s) / force_N,
        })
      return one.utilisation * Math.max(at(ring.loaded), at(ring.unloaded))
    },
  }))
}

/** The whole weight of the machine with what hangs on it, newtons: what may stand beside an edge. */
export const halfWeight_N = ({ machine, counterweight, boom, step, hook }: LiftContext): number => {
  const own = [...machine.chassis.masses, ...upperMasses(machine.upper, counterweight), ...boom.massesAt(step.boom_m, 0)]
  return ((own.reduce((s, m) => s + m.mass_kg, 0) + (hook?.total_kg ?? 0)) * g_mps2) / 2
}

/** Each track as what lies on the ground: its place and its size. */
export const tracksOnGround = ({ length_m, width_m, gauge_m }: TracksPart) =>
  trackSides.map((side) => ({
    at: { x_m: 0, y_m: ((side === 'left' ? 1 : -1) * gauge_m) / 2 },
    point: { id: side, label: labels[side], capacity_N: Infinity, float: { length_m, width_m } },
  }))
