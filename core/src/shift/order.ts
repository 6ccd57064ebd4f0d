import type { CheckName } from '../finding/reasons'
import type { SetupPlan } from '../lift/plan'
import type { Condition } from '../procedure/condition'
import type { OrderEvent } from '../procedure/event'
import type { ProcedureFile, Step } from '../procedure/file'
import { replay, type World } from '../procedure/world'
import type { LiftRecord, Shift } from './shift'

/**
 * A machine's order with a step for each place where people walk that is closed while the load is up: every step of the lift waits for it.
 *
 * @param labelOf what the place calls it; its id where it is no longer drawn
 */
export function withClosures(f: ProcedureFile, closes: readonly string[], labelOf: (feature: string) => string): ProcedureFile {
  if (closes.length === 0) return f
  const steps = closes.map(
    (feature): Step => ({
      id: `closed:${feature}`,
      label: `${labelOf(feature)} closed, somebody there who keeps it closed`,
      signals: [],
      every: 'change',
      repeats: false,
      handsFull: false,
      needs: [],
      keeps: [],
      sets: [],
      hazards: [],
      measures: [],
      planned: [],
      undo: { how: 'mistap', within_s: 10 },
    }),
  )
  const needs = steps.map((s) => ({ id: s.id, if: { done: s.id }, because: `People walk there: ${s.label}.`, remedy: s.id }))
  const goal = steps.map((s): Condition => ({ done: s.id }))
  return {
    ...f,
    procedures: f.procedures.map((p) =>
      p.station === 'lift' && p.required
        ? {
            ...p,
            goal: [...p.goal, ...goal],
            steps: [...steps, ...p.steps.map((s) => ({ ...s, needs: [...needs, ...s.needs] }))],
          }
        : p,
    ),
  }
}

/** As much of a place as an order of work asks for. */
export interface OrderPlace {
  features: readonly { id: string; label: string }[]
  policy: object
}

/** How a machine's order of work stands in a shift: its file, with what this lift closes, the world that its events have made, with what the site chooses in its plan. */
export function orderOf(
  { procedures }: { procedures: ProcedureFile },
  shift: Pick<Shift, 'order' | 'lifts'>,
  place: OrderPlace = { features: [], policy: {} },
): { file: ProcedureFile; world: World } {
  const label = (id: string) => place.features.find((x) => x.id === id)?.label ?? id
  const file = withClosures(procedures, shift.lifts.at(-1)?.plan.closes ?? [], label)
  const world = replay(file, shift.order)
  return { file, world: { ...world, plan: { ...world.plan, policy: place.policy } } }
}

/** What an order of work asks of a set-up: how it stands and what is fitted. */
export const partOfPlan = ({ standing, fitted }: Pick<SetupPlan, 'standing' | 'fitted'>): { setup: unknown } => ({
  setup: {
    standing: { on: standing.on, state: standing.state, ...('linkage' in standing && { linkage: standing.linkage }) },
    fitted,
  },
})

/** A load is taken in so many parts, looked at after each. */
const quarters = [25, 50, 75, 100]

/** What an order of work asks of a proved lift: what each that carries some of it carries after each quarter, and what its gauge shows then. */
export function partOfLift({ assessment: { carries } }: Pick<LiftRecord, 'assessment'>): Record<string, unknown> {
  const by = (figure: (c: (typeof carries)[number], kg: number) => number | null) =>
    Object.fromEntries(
      carries.map((c) => [
        c.id,
        Object.fromEntries(quarters.map((q) => [`at${q}`, figure(c, c.own_kg + ((c.kg - c.own_kg) * q) / 100)])),
      ]),
    )
  return { carries_kg: by((_, kg) => kg), shows_kPa: by((c, kg) => (c.kPa_per_kg === null ? null : kg * c.kPa_per_kg)) }
}

/** Above this share of its rating every lift is tried a hand's width up. */
const tried_share = 0.8

type ProvedLift = Omit<LiftRecord, 'outcome' | 'at'>

/** Whether a lift is like the last one, which was made: the same load the same way from the same set-up. */
export function isAlike(last: LiftRecord | undefined, next: ProvedLift): boolean {
  if (last?.outcome?.outcome !== 'done' || last.setup !== next.setup) return false
  const asked = ({ plan: { hung, steps, closes } }: ProvedLift) => JSON.stringify([hung, steps, closes])
  return asked(last) === asked(next)
}

/** Checks of what the machine may lift: ground, level and speed are other questions, which a trial does not answer. */
const ofRating: readonly CheckName[] = ['rating', 'share', 'hook', 'hoist-rope', 'overturning', 'grip']

/** The share of its rating that a proved lift takes, by the worst of what the machine may lift; null: none is known. */
export function shareOfRating({ assessment }: Pick<LiftRecord, 'assessment'>): number | null {
  const shares = assessment.findings.flatMap((f) => (ofRating.includes(f.check) && f.utilisation !== null ? [f.utilisation] : []))
  return shares.length > 0 ? Math.max(...shares) : null
}

type Told = Pick<OrderEvent, 'at' | 'by'>

/** What a lift that is proved does to the order: what was tried with another load is tried again, and it begins anew. */
export function ofProvedLift(last: LiftRecord | undefined, lift: ProvedLift, told: Told): OrderEvent[] {
  const alike = isAlike(last, lift)
  const all = { ...told, device: '' }
  const lost = (why: 'change' | 'load'): OrderEvent => ({ do: 'lost', id: `${lift.id}:${why}`, ...all, why })
  return [
    ...(alike ? [] : [lost('change')]),
    ...(alike && lift.policy.trialOfLike !== 'each' && (shareOfRating(lift) ?? 1) <= tried_share ? [] : [lost('load')]),
    { do: 'proved', id: `${lift.id}:proved`, ...all, lift: partOfLift(lift) },
    { do: 'begin', id: `${lift.id}:begin`, ...all, station: 'lift', alike },
  ]
}

/** What a set-up that is recorded does to it. */
export const ofSetup = (id: string, plan: SetupPlan, told: Told): OrderEvent[] => [
  { do: 'lost', id: `${id}:setup`, ...told, device: '', why: 'setup' },
  { do: 'plan', id: `${id}:plan`, ...told, device: '', plan: partOfPlan(plan) },
]

/** What was left and is come back to: what only holds while somebody is there is asked again. */
export const ofAbsence = (id: string, { at, by }: Told): OrderEvent => ({
  do: 'lost',
  id: `${id}:leaving`,
  at,
  by,
  device: '',
  why: 'leaving',
})

/** What a machine that stands somewhere else now does to it: it is set up anew. */
export const ofMove = ({ at, by }: Told): OrderEvent[] => [
  { do: 'lost', id: `moved ${at}`, at, by, device: '', why: 'moved' },
  { do: 'begin', id: `moved ${at}:begin`, at, by, device: '', station: 'setup', alike: false },
]
