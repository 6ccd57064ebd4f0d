import type { SetupPlan } from '../lift/plan'
import { liftsOnOutriggers } from '../machine/crane'
import type { Machine } from '../machine/machine'
import { poseMachine } from '../parts/stability/slewing'
import { counterweightNamed } from '../parts/superstructure'
import { outriggers } from '../parts/supports/outriggers'
import { normalDegrees } from '../physics'
import { Refusal } from '../refusal'
import { prepareFootprint } from '../statics/footprint'
import { envelopeOver, type ReactionEnvelope } from '../statics/reaction-envelope'
import { sumSlewing } from '../statics/resultant'

export interface Circle {
  radius_m: number
  unloaded: ReactionEnvelope
  loaded: ReactionEnvelope | null
  /** The leg that lightens first as the boom goes round loaded (unloaded when no load is given), and where. */
  lightens: { id: string; min_N: number; at_deg: number } | null
}

/**
 * Leg loads before and with a load, round the whole circle at one radius.
 * @throws Refusal when the set-up does not fit the machine, `out-of-reach`.
 */
export function setupCircle(
  machine: Machine,
  setup: SetupPlan,
  at: { boom_m: number; radius_m: number; load_kg: number | null },
): Circle {
  if (!liftsOnOutriggers(machine)) throw new Refusal('no-crane', `${machine.name} has no boom, legs and hoist.`, 'machine')
  const f = prepareFootprint(outriggers(machine.legs).contactsOf(setup.legs))
  const posed = poseMachine(machine, counterweightNamed(machine.name, machine.upper, setup.counterweight), at.boom_m, at.radius_m)
  const round = { from_deg: 0, to_deg: 360 }
  const unloaded = envelopeOver(f, posed.fixed, posed.slewing, round, 2, 0.05)
  const hung = at.load_kg === null ? null : sumSlewing([{ mass_kg: at.load_kg, radius_m: at.radius_m }])
  const loaded =
    hung &&
    envelopeOver(
      f,
      posed.fixed,
      {
        force_N: posed.slewing.force_N + hung.force_N,
        along_Nm: posed.slewing.along_Nm + hung.along_Nm,
        across_Nm: posed.slewing.across_Nm + hung.across_Nm,
      },
      round,
      2,
      0.01,
    )
  const lightest = [...(loaded ?? unloaded).supports].sort((a, b) => a.min_N - b.min_N)[0]
  return {
    radius_m: at.radius_m,
    unloaded,
    loaded,
    lightens: lightest ? { id: lightest.id, min_N: lightest.min_N, at_deg: normalDegrees(lightest.min_at_deg) } : null,
  }
}
