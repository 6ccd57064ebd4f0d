import type { CheckName } from '../finding/reasons'
import { drawnOut_m, type LiftPlan, type SetupPlan } from '../lift/plan'
import type { Machine } from '../machine/machine'
import { needsOf } from '../machine/needs'
import { looksFrom } from '../parts/eye'

/** Which part of a machine makes which checks due; whatever the machine is, the first line always is. */
const dueByPart: readonly [keyof Machine | null, readonly CheckName[]][] = [
  [null, ['mass', 'table', 'rating', 'overturning', 'level', 'wind']],
  ['boom', ['boom-limits', 'clearance', 'overhead-line']],
  ['hoist', ['hoist-rope', 'hook', 'swing']],
  ['upper', ['backward', 'edge']],
  ['wheels', ['wheel']],
  ['display', ['selection']],
  ['supportStates', ['motion']],
]

/** What else a truck is made for. */
const dueByTruck: readonly [(m: Machine, step: LiftPlan['steps'][number] | undefined) => boolean, CheckName][] = [
  [(m, s) => m.truck?.chassis?.grip !== undefined && s?.laden === true, 'grip'],
  [(m, s) => m.truck?.chassis?.operator !== undefined && s?.do === 'mast', 'aloft'],
]

/** What carries it: the ground or the floor under whatever it stands on is always due. */
const dueByStanding: Record<SetupPlan['standing']['on'], readonly CheckName[]> = {
  outriggers: ['outrigger', 'ground'],
  wheels: ['axle', 'floor'],
  runway: [],
  towers: ['ground'],
  frame: ['wheel', 'floor'],
  base: [],
  tracks: ['ground'],
}

/** On the way slopes, braking and turns stand for standing level and still: the travel check. */
const onTheWay = new Set<CheckName>(['overturning', 'level'])

/** A tower's base has its papers, which stand for what is looked at of other machines. */
const notOnBase = new Set<CheckName>(['level', 'backward', 'edge'])

/** What only comes into it where a machine is so made and stands so. */
const onlyOn: Partial<Record<CheckName, SetupPlan['standing']['on']>> = { wheel: 'wheels' }

/** On props its foot may pull the frame up. */
const onProps = ({ supportStates }: Machine, { standing }: SetupPlan) =>
  supportStates?.find((s) => s.id === standing.state)?.props !== undefined

/** Towing is driving: no table, no hook and no boom come into it. */
const dueTowing: readonly CheckName[] = ['mass', 'structure', 'axle', 'wheel', 'floor', 'way', 'travel', 'traction']

/** Under a beam there is no ground, no wind, no level: marks, chain, beam. */
const dueUnderBeam: readonly CheckName[] = ['mass', 'table', 'rating', 'hoist-rope', 'structure']

/** Between towers: what each carries, by its stage, its papers, its track. */
const dueOnTowers: readonly CheckName[] = [
  'mass',
  'table',
  'rating',
  'share',
  'overturning',
  'level',
  'wind',
  'structure',
  'ground',
]

/** A frame astride its load: both hoists, its tyres and what is under them; on the way slopes and braking besides. */
const dueOnFrame: readonly CheckName[] = [
  'mass',
  'table',
  'rating',
  'share',
  'hoist-rope',
  'structure',
  'wheel',
  'floor',
  'wind',
  'motion',
]
const dueByDoing = (does: string | undefined): readonly CheckName[] =>
  does === 'drive' ? ['way', 'travel'] : ['overturning', 'level']

const hasHeights = (s: LiftPlan['steps'][number] | undefined) => s?.laden === true && 'heights' in s && s.heights !== undefined

const isLifted = ({ steps }: LiftPlan, i: number) =>
  steps[i]?.laden === true && (steps[i].do === 'slew' || steps[i].do === 'pose')

/** What a step says, or does, that makes a check due. */
const dueByStep: readonly [(lift: LiftPlan, i: number) => boolean, CheckName][] = [
  [({ steps }, i) => hasHeights(steps[i]), 'hook-height'],
  [({ steps }, i) => drawnOut_m(steps, i) > 0, 'two-block'],
  [isLifted, 'people'],
  [
    ({ steps }, i) => {
      const s = steps[i]
      return s?.do === 'drive' && s.route !== undefined
    },
    'people',
  ],
  [({ steps }, i) => steps[i]?.do === 'drive', 'way'],
  [({ steps }, i) => steps[i]?.do === 'drive', 'travel'],
  [({ steps }, i) => steps[i]?.do === 'drive', 'traction'],
  [({ hung, steps }, i) => hung.load.tiers_m !== undefined && steps[i]?.laden === true, 'guard'],
  [({ hung, steps }, i) => hung.slings !== undefined && steps[i]?.laden === true, 'structure'],
]

/**
 * What has to be answered before a step of a lift is proved, by the parts that the machine has, by what it stands on and by what the step
 * says. Kept apart from the checks themselves, so that one which is missing, or says nothing, never passes.
 */
export function dueChecks(machine: Machine, setup: SetupPlan, lift: LiftPlan, step = 0): readonly CheckName[] {
  const confirmed = needsOf(machine, setup).length > 0 ? (['evidence'] as const) : []
  if (lift.steps[step]?.do === 'tow') return [...dueTowing, ...(machine.supportStates ? (['motion'] as const) : []), ...confirmed]
  if (setup.standing.on === 'runway') return [...dueUnderBeam, ...confirmed]
  if (setup.standing.on === 'frame') return [...dueOnFrame, ...dueByDoing(lift.steps[step]?.do), ...confirmed]
  if (setup.standing.on === 'towers') return [...dueOnTowers, ...confirmed]
  return [
    ...dueByPart
      .flatMap(([part, names]) => (part === null || machine[part] !== undefined ? names : []))
      .filter((name) => (onlyOn[name] ?? setup.standing.on) === setup.standing.on)
      .filter((name) => !(lift.steps[step]?.do === 'drive' && onTheWay.has(name)))
      .filter((name) => !(setup.standing.on === 'base' && notOnBase.has(name))),
    ...dueByTruck.flatMap(([due, name]) => (due(machine, lift.steps[step]) ? [name] : [])),
    ...(isLifted(lift, step) && looksFrom(machine, lift) ? (['sight'] as const) : []),
    ...dueByStanding[setup.standing.on],
    ...(onProps(machine, setup) ? (['structure'] as const) : []),
    ...confirmed,
    ...dueByStep.flatMap(([due, name]) => (due(lift, step) ? [name] : [])),
  ]
}
