import type { CheckName } from '../finding/reasons'
import type { Machine } from '../machine/machine'

/** Which part of a machine makes which checks due; whatever the machine is, the first line always is. */
const dueBy: readonly [keyof Machine | null, readonly CheckName[]][] = [
  [null, ['mass', 'table', 'rating', 'overturning', 'ground', 'level', 'wind']],
  ['boom', ['boom-limits']],
  ['hoist', ['hoist-rope', 'hook']],
  ['outriggers', ['outrigger']],
  ['upper', ['backward']],
]

/**
 * What has to be answered before a lift of this machine is proved, by the parts it has. Kept apart from the checks themselves, so
 * that one which is missing, or says nothing, never passes.
 */
export function dueChecks(machine: Machine): readonly CheckName[] {
  return dueBy.flatMap(([part, names]) => (part === null || machine[part] !== undefined ? names : []))
}
