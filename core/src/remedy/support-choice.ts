import { assess } from '../assess/assess'
import type { Case } from '../lift/case'
import type { SetupPlan } from '../lift/plan'
import { nth } from '../list'
import { type OutriggerSetting, stopsOf } from '../parts/supports/outriggers'
import { propContacts } from '../parts/supports/props'
import { outriggersIn } from '../parts/supports/states'
import type { SupportState } from '../parts/supports/support'
import { groundAt } from '../place/standing'
import { Refusal } from '../refusal'
import type { AvailableResources } from './remedy'

/** The same set-up in another way of standing: outriggers as they are, or as far out as they go on the largest mat there is. */
export function standingIn(c: Case, state: SupportState, means: AvailableResources): SetupPlan {
  const { machine, setup, place } = c
  if (state.on === 'wheels') {
    const ground = place.ground.find((g) => g.id === groundAt(place, setup.position, { x_m: 0, y_m: 0 })) ?? null
    return { ...setup, standing: { on: 'wheels', state: state.id, ground, tyres: null } }
  }
  const [mat = null] = [...means.mats].sort((a, b) => b.length_m * b.width_m - a.length_m * a.width_m)
  const underProps = state.props ? propContacts(state.props) : []
  const props = underProps.map((at): OutriggerSetting => {
    const ground = place.ground.find((g) => g.id === groundAt(place, setup.position, at)) ?? null
    return { id: at.id, at: { stop: 'set' }, mat, ground, stroke_m: 0 }
  })
  const legs = (machine.outriggers ?? []).map((o) => o.id)
  const now = outriggersIn(setup.standing).filter((s) => legs.includes(s.id))
  if (now.length > 0) return { ...setup, standing: { on: 'outriggers', state: state.id, outriggers: [...now, ...props] } }
  const outriggers = (machine.outriggers ?? []).map((o): OutriggerSetting => {
    const stops = stopsOf(o)
    const at = [...stops].reverse().find((s) => means.canStand(o.id, s.id, mat?.id ?? null)) ?? nth(stops, 0)
    const ground = place.ground.find((g) => g.id === groundAt(place, setup.position, at)) ?? null
    return { id: o.id, at: { stop: at.id }, mat, ground, stroke_m: o.stroke.min_m }
  })
  return { ...setup, standing: { on: 'outriggers', state: state.id, outriggers: [...outriggers, ...props] } }
}

/** Of the ways of standing those that a load is lifted in. */
const isForLifts = (s: SupportState) => s.for === 'lift'

/** What one way of standing rates a lift at, at the worst point of its way. */
export interface SupportOption {
  id: string
  label: string
  rated_kg: number | null
  /** Share of that used; null: it rates nothing there. */
  use: number | null
  /** It stands so now. */
  now: boolean
  /** The least work of those that take it. */
  least: boolean
}

/**
 * Every way in which a machine can stand, the least work first, and what each rates this lift at; the least that takes it is marked.
 * Only the table is asked: what stands, presses or tips is looked at once the machine stands so. Empty: it has only one way.
 *
 * @example supportChoice(plan, { mats: plan.place.mats, canStand: () => true }).find((o) => o.least)?.id // 'legs'
 */
export function supportChoice(c: Case, means: AvailableResources): SupportOption[] {
  const options = (c.machine.supportStates ?? []).filter(isForLifts).map((state) => {
    const now = state.id === c.setup.standing.state
    const { rated_kg, use, allowed } = ratedIn(now ? c : { ...c, setup: standingIn(c, state, means) })
    return { id: state.id, label: state.label, rated_kg, use: allowed ? use : null, now }
  })
  const least = options.find((o) => o.use !== null && o.use <= 1)
  return options.map((o) => ({ ...o, least: o === least }))
}

function ratedIn(c: Case): { rated_kg: number | null; use: number | null; allowed: boolean } {
  try {
    const { findings, rated_kg } = assess(c)
    const use = findings.find((f) => f.check === 'rating')?.utilisation ?? null
    return { rated_kg, use, allowed: !findings.some((f) => f.check === 'motion' && f.verdict === 'outside') }
  } catch (e) {
    if (e instanceof Refusal) return { rated_kg: null, use: null, allowed: false }
    throw e
  }
}
