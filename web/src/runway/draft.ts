import type { Shift } from '@geolabe/contract'
import type { MarksRead, Place, RunwayMachine, SetupPlan, TraverseStep } from '@geolabe/core'
import type { ProveDraft } from '../prove/draft'
import { oneKind } from '../prove/one-kind'

export interface RunwaySetupDraft {
  marks: MarksRead
  confirmed: SetupPlan['confirmed']
}

/** Marks stay as they were last read here; what is confirmed is confirmed anew. */
export const firstRunwaySetup = (shift: Shift): RunwaySetupDraft => ({
  marks: shift.setups.at(-1)?.plan.fitted.marks ?? { hoist: null, trolley: null, beam: null, hook: null },
  confirmed: [],
})

/** Is a draft that was kept on the device of today's shape? */
export const isRunwaySetup = (d: Partial<RunwaySetupDraft>): boolean => typeof d.marks === 'object' && Array.isArray(d.confirmed)

/** A beam hangs where its place has marked it; without a mark where anything stands first. */
export function runwayPlanOf(d: RunwaySetupDraft, { runway: { travel } }: RunwayMachine, place: Place): SetupPlan {
  const at = place.positions.find((p) => p.id === travel.beam) ?? place.positions[0]
  const { x_m, y_m, heading_deg } = at ?? { x_m: 0, y_m: 0, heading_deg: 0 }
  return {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m, y_m, heading_deg },
    standing: { on: 'runway', beam: travel.beam },
    fitted: { marks: d.marks },
    level: { pitch_deg: null, roll_deg: null, levelVerified: false },
    confirmed: d.confirmed,
  }
}

/** A first plan: nothing known of the load, taken along the middle of the beam. */
export function firstTraverse({ runway }: RunwayMachine, shift: Shift): ProveDraft {
  const last = shift.lifts.at(-1)
  if (last && isTraverse({ lift: last.plan })) return { lift: last.plan, wind_mps: null }
  const load = { name: '', mass_kg: null, massSource: null, windArea_m2: null, dragCoefficient: 1.2 }
  const { span_m } = runway.beam
  const step: TraverseStep = { do: 'traverse', laden: true, from_m: span_m / 6, to_m: (span_m * 5) / 6 }
  return { lift: { format: 'geolabe.lift/2', hung: { load, rigging: [] }, steps: [step] }, wind_mps: null }
}

export const { is: isTraverse, of: traverseOf, with: withTraverse } = oneKind('traverse')
