import { type Case, nearShareOf } from '../lift/case'
import { nth } from '../list'
import { isRunway, type RunwayMachine } from '../machine/provable'
import type { RunwayPart, TraverseStep } from '../parts/runway'
import { high, low, nominal } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type Hanging, hangingOf } from './hanging'

/** Everything that the checks of a lift under a beam ask for. */
export class RunwayContext {
  readonly machine: RunwayMachine
  readonly runway: RunwayPart
  readonly step: TraverseStep
  readonly near_share: number
  /** The whole of its travel with everything's doubt, from the support away from the overhang, metres. */
  readonly travel: { from_m: number; to_m: number }
  /** What hangs on the hook, at its heaviest and as it is said, kg; null: not known. */
  readonly hung: Hanging | null

  /** @throws Refusal `step-not-possible`; `unknown-runway` naming its beam; `out-of-reach` beyond its end stops */
  constructor(
    readonly plan: Case,
    readonly index: number,
  ) {
    const { machine, setup, lift } = plan
    const step = nth(lift.steps, index)
    if (!isRunway(machine) || step.do !== 'traverse')
      throw new Refusal('step-not-possible', `${machine.name} hangs under no beam.`, 'machine')
    if ((step.of ?? 'trolley') !== 'trolley')
      throw new Refusal('step-not-possible', `On ${machine.name} only the trolley travels.`, `lift.steps.${index}.of`)
    this.machine = machine
    this.runway = machine.runway
    this.step = step
    this.near_share = nearShareOf(plan)
    const { beam, stops } = machine.runway.travel
    if (setup.standing.on !== 'runway' || setup.standing.beam !== beam)
      throw new Refusal('unknown-runway', `${machine.name} hangs under ${beam}; set it up there.`, 'setup.standing.beam')
    for (const field of ['from_m', 'to_m'] as const) {
      const at_m = nominal(step[field])
      if (at_m < stops.from_m - 1e-9 || at_m > stops.to_m + 1e-9)
        throw new Refusal(
          'out-of-reach',
          `Its end stops let it travel from ${stops.from_m} to ${stops.to_m} m.`,
          `lift.steps.${index}.${field}`,
        )
    }
    // No further than the stops, whatever the doubt.
    const kept = (m: number) => Math.min(stops.to_m, Math.max(stops.from_m, m))
    this.travel = {
      from_m: kept(Math.min(low(step.from_m), low(step.to_m))),
      to_m: kept(Math.max(high(step.from_m), high(step.to_m))),
    }
    this.hung = hangingOf(plan, step.laden)
  }
}
