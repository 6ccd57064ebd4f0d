import type { CheckName } from '../finding/reasons'
import { drawnOut_m, type LiftPlan } from '../lift/plan'
import type { Machine } from '../machine/machine'

/** Which part of a machine makes which checks due; whatever the machine is, the first line always is. */
const dueByPart: readonly [keyof Machine | null, readonly CheckName[]][] = [
  [null, ['mass', 'table', 'rating', 'overturning', 'ground', 'level', 'wind', 'edge']],
  ['boom', ['boom-limits', 'clearance', 'overhead-line']],
  ['hoist', ['hoist-rope', 'hook', 'swing']],
  ['outriggers', ['outrigger']],
  ['upper', ['backward']],
]

/** What a step says, or does, that makes a check due. */
const dueByStep: readonly [(lift: LiftPlan, i: number) => boolean, CheckName][] = [
  [({ steps }, i) => steps[i]?.laden === true && steps[i]?.heights !== undefined, 'hook-height'],
  [({ steps }, i) => drawnOut_m(steps, i) > 0, 'two-block'],
  [({ hung, steps }, i) => hung.slings !== undefined && steps[i]?.laden === true, 'structure'],
]

/**
 * What has to be answered before a step of a lift is proved, by the parts that the machine has and by what the step says. Kept apart
 * from the checks themselves, so that one which is missing, or says nothing, never passes.
 */
export function dueChecks(machine: Machine, lift: LiftPlan, step = 0): readonly CheckName[] {
  return [
    ...dueByPart.flatMap(([part, names]) => (part === null || machine[part] !== undefined ? names : [])),
    ...dueByStep.flatMap(([due, name]) => (due(lift, step) ? [name] : [])),
  ]
}
