import type { Machine } from '../machine/machine'
import { isGantry, isRunway, isStraddle, isTruck } from '../machine/provable'
import { Refusal } from '../refusal'
import type { LiftPlan, Step } from './plan'

/** Which part of a machine makes which step. */
const madeBy: Record<Step['do'], { words: string; makes: (m: Machine) => boolean }> = {
  // A folding boom gets to a radius in many ways: which, its poses say.
  slew: { words: 'slew from one radius to another', makes: (m) => m.upper !== undefined && m.boom?.articulated === undefined },
  mast: { words: 'stack by a mast', makes: (m) => isTruck(m) && m.truck.reach === undefined },
  reach: { words: 'draw out and raise a boom ahead of it', makes: (m) => isTruck(m) && m.truck.reach !== undefined },
  drive: { words: 'drive with a load', makes: (m) => isTruck(m) || isStraddle(m) },
  tow: { words: 'tow', makes: (m) => m.tow !== undefined && m.wheels !== undefined },
  traverse: { words: 'travel so', makes: (m) => isRunway(m) || isGantry(m) },
  hoist: { words: 'raise straight up', makes: (m) => isGantry(m) || isStraddle(m) },
  pose: { words: 'fold', makes: (m) => m.boom?.articulated !== undefined },
}

/** @throws Refusal `step-not-possible` at the first step that the machine's parts do not make */
export function refuseImpossibleSteps(machine: Machine, { steps }: LiftPlan): void {
  steps.forEach((step, i) => {
    const { words, makes } = madeBy[step.do]
    if (!makes(machine)) {
      throw new Refusal('step-not-possible', `${machine.name} does not ${words}; take this step out.`, `lift.steps.${i}.do`)
    }
    if ((step.do === 'tow') !== (steps[0]?.do === 'tow')) {
      throw new Refusal('step-not-possible', 'Towing is a plan of its own; take the other steps out.', `lift.steps.${i}.do`)
    }
    const { boom } = machine
    if (boom?.pinned && step.do === 'slew' && !boom.lengths_m.includes(step.boom_m)) {
      const pins = boom.lengths_m.join(', ')
      throw new Refusal('unknown-section', `${machine.name} is pinned at ${pins} m, nowhere between.`, `lift.steps.${i}.boom_m`)
    }
  })
}
