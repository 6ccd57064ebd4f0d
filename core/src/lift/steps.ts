import type { Machine } from '../machine/machine'
import { Refusal } from '../refusal'
import type { LiftPlan, Step } from './plan'

/** Which part of a machine makes which step. */
const madeBy: Record<Step['do'], { words: string; part: keyof Machine }> = {
  slew: { words: 'slew', part: 'upper' },
}

/** @throws Refusal `step-not-possible` at the first step that the machine's parts do not make */
export function refuseImpossibleSteps(machine: Machine, { steps }: LiftPlan): void {
  steps.forEach((step, i) => {
    const { words, part } = madeBy[step.do]
    if (machine[part] === undefined) {
      throw new Refusal('step-not-possible', `${machine.name} does not ${words}; take this step out.`, `lift.steps.${i}.do`)
    }
  })
}
