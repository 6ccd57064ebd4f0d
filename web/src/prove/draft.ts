import type { Shift } from '@geolabe/contract'
import {
  type ArticulatedPose,
  atSlew,
  type Crane,
  foldingOf,
  foldingPoses,
  type HookPoint,
  jointsOf,
  type LiftPlan,
  motionsOf,
  nominal,
  type Place,
  type Point,
  type PoseStep,
  type SlewStep,
  type Step,
  type Tol,
} from '@geolabe/core'

export interface ProveDraft {
  lift: LiftPlan
  wind_mps: Tol | null
}

/** A first plan: a load that waits here, the middle boom, points to either side of where the machine can work. */
export function firstLift(machine: Crane, place: Place, shift: Shift): ProveDraft {
  const last = shift.lifts[shift.lifts.length - 1]
  if (last && isLiftDraft({ lift: last.plan })) return { lift: last.plan, wind_mps: null }
  const load = place.loads[0]
  const middle_m = machine.boom.lengths_m[Math.floor(machine.boom.lengths_m.length / 2)] as number
  const boom_m = shift.setups.at(-1)?.plan.fitted.boom_m ?? middle_m
  const slew = machine.supportStates?.find((s) => s.id === shift.setups.at(-1)?.plan.standing.state)?.slew
  const middle_deg = slew && (slew.from_deg + slew.to_deg) / 2
  /** To the half metre, as a share of the boom. */
  const out = (share: number) => Math.round(boom_m * share * 2) / 2
  return {
    lift: {
      format: 'geolabe.lift/2',
      hung: {
        load: load
          ? {
              name: load.label,
              mass_kg: load.mass_kg,
              massSource: load.massSource,
              windArea_m2: load.windArea_m2,
              dragCoefficient: load.dragCoefficient,
              ...(load.size ? { size: load.size } : {}),
            }
          : { name: '', mass_kg: null, massSource: null, windArea_m2: null, dragCoefficient: 1.2 },
        rigging: [],
      },
      steps: [
        machine.boom.articulated
          ? firstPoses(machine.boom.articulated.stage_m)
          : {
              do: 'slew',
              laden: true,
              boom_m,
              pickUp: { radius_m: out(0.36), slew_deg: middle_deg ?? 250 },
              setDown: { radius_m: out(0.464), slew_deg: middle_deg ?? 300 },
              slewDirection: 'anticlockwise',
              radiusBasis: null,
            },
      ],
    },
    wind_mps: null,
  }
}

/** Two poses of a folding boom, one stage drawn out: from above the load to beside the machine. */
const firstPoses = (stage_m: number): PoseStep => ({
  do: 'pose',
  laden: true,
  waypoints: [
    { inner_deg: 65, fold_deg: 55, extension_m: stage_m, slew_deg: 250 },
    { inner_deg: 60, fold_deg: 40, extension_m: stage_m, slew_deg: 300 },
  ],
  mode: 'together',
  radiusBasis: null,
})

/** What a crane does with a load. */
export type CraneStep = SlewStep | PoseStep
const byCrane = (s: Step): s is CraneStep => s.do === 'slew' || s.do === 'pose'

/** The step that is drawn and worked on: the first one with the load on. */
export function stepOf({ steps }: LiftPlan): CraneStep {
  const own = steps.filter(byCrane)
  return own.find((s) => s.laden) ?? (own[0] as CraneStep)
}

/** What can be changed of a step whatever it does; the rest belongs to its kind. */
export type StepChange = Partial<Omit<SlewStep, 'do'>> | Partial<Omit<PoseStep, 'do'>>

/** The lift with that step changed. */
export function withStep(lift: LiftPlan, to: StepChange): LiftPlan {
  const step = stepOf(lift)
  return { ...lift, steps: lift.steps.map((s) => (s === step ? ({ ...s, ...to } as Step) : s)) }
}

/** A step as the drawings show it: from where to where, with which boom, and the hook's way between. */
export interface SeenStep {
  pickUp: HookPoint
  setDown: HookPoint
  boom_m: number
  /** Null: it could not be worked out; what was refused is said elsewhere. */
  way: Point[] | null
  step: CraneStep
}

/** How finely a way is drawn. */
const pieces = 24

export function seenAs(machine: Crane, step: CraneStep): SeenStep {
  if (step.do === 'slew') return { pickUp: step.pickUp, setDown: step.setDown, boom_m: step.boom_m, way: null, step }
  const f = foldingOf(machine.boom)
  const ends = [step.waypoints[0], step.waypoints.at(-1)].map((p) => ({
    radius_m: f && p ? Math.max(0.1, Math.round(jointsOf(f, p).head.out_m * 1000) / 1000) : 1,
    slew_deg: p?.slew_deg ?? 0,
  }))
  const [pickUp, setDown] = ends as [HookPoint, HookPoint]
  const last = step.waypoints.at(-1)
  const boom_m = (f ? f.inner_m + f.outer_m : 0) + (last?.extension_m ?? 0)
  return { pickUp, setDown, boom_m, way: wayThrough(machine, step), step }
}

function wayThrough(machine: Crane, step: PoseStep): Point[] | null {
  try {
    return motionsOf(machine, step, 'step').flatMap(({ path, posed, step: s }) => {
      const [from, to] = [nominal(s.pickUp.radius_m), nominal(s.setDown.radius_m)]
      const { from_deg, to_deg } = path.arc
      return Array.from({ length: pieces + 1 }, (_, i) => {
        const radius_m = from + ((to - from) * i) / pieces
        const still = Math.abs(to - from) < 1e-6
        const slew_deg = still ? from_deg + ((to_deg - from_deg) * i) / pieces : (posed?.poseAt(radius_m).slew_deg ?? from_deg)
        return atSlew(radius_m, slew_deg)
      })
    })
  } catch {
    return null
  }
}

/** A pose that has its head at another radius, no higher or lower than it was where that can be; null: the booms do not get there. */
export function poseAt(machine: Crane, p: ArticulatedPose, radius_m: number, height_m?: number): ArticulatedPose | null {
  const f = foldingOf(machine.boom)
  if (!f) return null
  const outer_m = f.outer_m + p.extension_m
  const at = height_m ?? jointsOf(f, p).head.height_m
  const most_m = f.inner_m + outer_m - 1e-6
  const across = radius_m + f.pivot.back_m
  // At the border the head slides along what the booms reach.
  const room_m = Math.sqrt(Math.max(0, most_m ** 2 - across ** 2))
  const tip = { radius_m, height_m: Math.min(f.pivot.height_m + room_m, Math.max(f.pivot.height_m - room_m, at)) }
  const found = foldingPoses({ inner_m: f.inner_m, outer_m, pivot: f.pivot }, tip).find(
    (x) =>
      x.angle_deg >= f.innerAngle.min_deg &&
      x.angle_deg <= f.innerAngle.max_deg &&
      x.fold_deg >= f.fold.min_deg &&
      x.fold_deg <= f.fold.max_deg,
  )
  const whole = (v: number) => Math.round(v * 10) / 10
  return found ? { ...p, inner_deg: whole(found.angle_deg), fold_deg: whole(found.fold_deg) } : null
}
/** The lift with its load, or what hangs with it, changed. */
export const withHung = (lift: LiftPlan, to: Partial<LiftPlan['hung']>): LiftPlan => ({ ...lift, hung: { ...lift.hung, ...to } })

/** Is a draft that was kept on the device of today's shape? */
export const isLiftDraft = (d: Partial<ProveDraft>): boolean => d.lift?.format === 'geolabe.lift/2' && d.lift.steps.every(byCrane)

/** Moves a point without losing what is said about its measurement. */
export function movedTo(p: HookPoint, to: { radius_m: number; slew_deg: number }): HookPoint {
  return { slew_deg: to.slew_deg, radius_m: typeof p.radius_m === 'number' ? to.radius_m : { ...p.radius_m, value: to.radius_m } }
}

export const plainPoint = (p: HookPoint) => ({ radius_m: nominal(p.radius_m), slew_deg: p.slew_deg })
