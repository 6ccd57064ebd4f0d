import { z } from 'zod'
import type { Machine } from '../machine/machine'
import { type Attempt, attemptsOf, type Fault } from './attempts'
import { courseFor, type LoadSet, loadSet } from './course'
import { Drill, longest_ticks } from './drill'
import { checkInputs, leverInputs, leversFrom } from './inputs'
import { referenceRun } from './reference-driver'
import { rigOf } from './rig'
import { checkHead, runHead } from './run-head'
import { barOf, type RunScore, scoreOf } from './score'

/** This reckoning; a run of another is shown, not scored anew. */
export const practiceVersion = 1
/** Another device may differ by so much in what it reckons, metres. */
const same_m = 1e-6
export const keyEvery_ticks = 1200

/** A run as it is kept: what was done with which lever at which tick, and nothing that follows from it. */
export const loadRun = z.strictObject({
  ...runHead,
  game: z.literal('load'),
  inputs: leverInputs,
  /** Ticks at which the emergency stop was pressed. */
  stops: z.array(z.int().min(0)).max(200),
  /** How many ticks it went on. */
  ticks: z.int().min(1).max(longest_ticks),
  /** Figures of the state every ten seconds. */
  keys: z.array(z.tuple([z.int().min(0), z.array(z.number()).max(24)])).max(200),
  /** What an assessor has set; left out: nothing. */
  settings: loadSet.optional(),
})
export type LoadRun = z.infer<typeof loadRun>

export interface Played {
  drill: Drill
  /** The same course as a very good operator would drive it. */
  reference: Drill
  result: RunScore & { attempts: Attempt[]; faults: Fault[]; energyShare: number; same: boolean }
}

/** Steps a course by a run's own inputs, tick after tick from its first. */
export function stepsOf(drill: Drill, run: Pick<LoadRun, 'inputs' | 'stops'>): (tick: number) => void {
  const levers = leversFrom(run.inputs, drill.rig.axes.length)
  const stops = new Set(run.stops)
  return (tick) => drill.step(levers.at(tick), stops.has(tick))
}

/** What a run's inputs make of its course: the same on every device. Key states of the run are compared. */
function driven(drill: Drill, run: LoadRun): { same: boolean } {
  const step = stepsOf(drill, run)
  const keys = new Map(run.keys.map(([tick, figures]) => [tick, figures]))
  let same = true
  for (let tick = 0; tick < run.ticks && !drill.over; tick++) {
    step(tick)
    const kept = keys.get(tick)
    if (kept && !drill.key().every((x, i) => Math.abs(x - (kept[i] ?? Number.NaN)) <= same_m)) same = false
  }
  return { same }
}

/** What there is to be driven with a seed on a machine, and the bar for it. */
export function practiceOn(m: Machine, seed: number, level: number, set?: LoadSet) {
  const rig = rigOf(m)
  const course = courseFor(rig, seed, level, set)
  return { rig, course, reference: referenceRun(rig, course) }
}

/**
 * A run played again from its inputs alone, with score and words.
 *
 * @throws Refusal `machine-changed`, `version-unknown`, `inputs-order`, `axis-unknown`, `no-drives`, `no-course`
 * @example playRun(tern, run).result.score
 */
export function playRun(m: Machine, run: LoadRun): Played {
  checkHead(m, run, practiceVersion)
  // Looked at before anything is reckoned: the reference alone takes a second.
  checkInputs(run.inputs, rigOf(m).axes.length, run.ticks)
  const { rig, course, reference } = practiceOn(m, run.seed, run.level, run.settings)
  const drill = new Drill(rig, course)
  const { same } = driven(drill, run)
  const score = scoreOf(drill, barOf(reference))
  return { drill, reference, result: { ...score, ...attemptsOf(drill), energyShare: drill.energyShare, same } }
}
