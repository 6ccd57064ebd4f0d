import type { SignalId } from '../hand-signals/hand-signal'
import { type LeverInputs, leversFrom } from '../practice/inputs'
import { tick_s } from '../swing/axis'
import { type Prompt, silence_s } from './course'
import type { Way } from './signal'

/** What can go wrong with one prompt, the gravest first. */
export const signalFaults = [
  'wrong-motion',
  'obeyed-other',
  'never-agreed',
  'without-signal',
  'late-stop',
  'no-answer',
  'slow',
  'wrong-signal',
  'no-signal',
] as const
export type SignalFault = (typeof signalFaults)[number]

/** What came of one prompt. */
export interface Response {
  /** Answered, or the other way round: given by whoever practises. */
  by: Prompt['by'] | 'given'
  signal: Prompt['signal']
  who: Prompt['who']
  wants: 'move' | 'stop' | 'nothing'
  /** From its first picture until the right lever alone was moved, or the last let go, the device’s own delay taken off; null: never. */
  after_s: number | null
  /** 0 to 1; null: not counted. */
  marks: number | null
  /** Sooner than anybody can see it. */
  guessed: boolean
  fault: SignalFault | null
  /** What was given; null: nothing. Left out: it was answered. */
  gave?: SignalId | null
}

export interface SignalMarks {
  way: 'answered' | 'given'
  responses: Response[]
  median_s: number | null
  p90_s: number | null
  worst_s: number | null
  guesses: number
  /** By its own time, with what was given again. */
  lasts_s: number
  score: number
  passed: boolean
}

const [moved_share, still_share] = [0.1, 0.05]
/** A lever pushed no further than this goes slowly. */
const slow_share = 0.55
/** Nobody answers sooner. */
const guess_s = 0.15
const stopMarks = { full_s: 0.8, none_s: 1.5 }
const moveMarks = { full_s: 1.2, none_s: 2.5 }
const most_guesses = 3
const [failed_score, pass_score] = [30, 80]

export const marksFor = (after_s: number, { full_s, none_s }: typeof stopMarks) =>
  Math.max(0, Math.min(1, (none_s - after_s) / (none_s - full_s)))

/** Levers of each tick of a run, stops let go of. */
export type LeversAt = (tick: number) => readonly number[]

const isMoved = (u: number | undefined) => Math.abs(u ?? 0) > moved_share
const isStill = (levers: readonly number[]) => levers.every((u) => Math.abs(u) < still_share)

/** A motion asked for: the right lever alone. What was still held from before may be let go of first, as long as an answer may take. */
function moveResponse(
  p: Prompt,
  { motion, sense, slow }: Way,
  motions: readonly string[],
  at: LeversAt,
  latency_s: number,
): Response {
  const own = motions.indexOf(motion)
  const held = at(p.from).map((u) => (isMoved(u) ? Math.sign(u) : 0))
  const base = { by: p.by, signal: p.signal, who: p.who, wants: 'move' as const, guessed: false }
  const goes = (u: number) => u * sense > moved_share && (!slow || u * sense <= slow_share)
  // What goes slowly already has nothing to answer.
  if (slow && goes(at(p.from)[own] ?? 0)) return { ...base, after_s: null, marks: null, fault: null }
  let after: number | null = null
  for (let tick = p.from; tick < p.until; tick++) {
    const levers = at(tick)
    for (const [axis, u] of levers.entries()) {
      if (!isMoved(u)) held[axis] = 0
      const wanted = axis === own && Math.sign(u) === sense
      const heldOver = Math.sign(u) === held[axis] && (tick - p.from) * tick_s <= moveMarks.none_s
      if (isMoved(u) && !wanted && !heldOver)
        return { ...base, after_s: (tick - p.from) * tick_s, marks: 0, fault: 'wrong-motion' }
    }
    const alone = levers.every((u, axis) => (axis === own ? goes(u) : !isMoved(u)))
    if (alone) after ??= tick
  }
  if (after === null) return { ...base, after_s: null, marks: 0, fault: 'no-answer' }
  const after_s = Math.max(0, (after - p.from) * tick_s - latency_s)
  if (after_s < guess_s) return { ...base, after_s, marks: null, guessed: true, fault: null }
  const marks = marksFor(after_s, moveMarks)
  return { ...base, after_s, marks, fault: marks === 0 ? 'slow' : null }
}

/** The radio is silent for so long before that is a stop. */
const graceOf = (p: Prompt) => (p.by === 'voice' && p.who === 'nobody' ? silence_s : 0)

/** A stop, by whomever: every lever let go of, and left. Where nothing was moved there is nothing to stop; let go of sooner, it is a guess. */
function stopResponse(p: Prompt, before: Prompt | undefined, at: LeversAt, latency_s: number): Response {
  const base = { by: p.by, signal: p.signal, who: p.who, wants: 'stop' as const, guessed: false }
  if (isStill(at(p.from)))
    return {
      ...base,
      after_s: null,
      marks: null,
      guessed: before !== undefined && isMovedDuring(before, at),
      fault: movedIn(p, at) ? 'without-signal' : null,
    }
  let still: number | null = null
  for (let tick = p.from; tick < p.until; tick++) {
    const levers = at(tick)
    if (isStill(levers)) still ??= tick
    else if (still !== null && levers.some(isMoved))
      return { ...base, after_s: (still - p.from) * tick_s, marks: 0, fault: 'without-signal' }
  }
  if (still === null) return { ...base, after_s: null, marks: 0, fault: 'late-stop' }
  const since_s = Math.max(0, (still - p.from) * tick_s - latency_s)
  if (since_s < guess_s) return { ...base, after_s: since_s, marks: null, guessed: true, fault: null }
  // Who stops sooner than silence asks for it has stopped in time.
  const after_s = Math.max(0, since_s - graceOf(p))
  const marks = marksFor(after_s, stopMarks)
  return { ...base, after_s, marks, fault: marks === 0 ? 'late-stop' : null }
}

/** Whether any lever stood moved at some time of a prompt. */
function isMovedDuring(p: Prompt, at: LeversAt): boolean {
  for (let tick = p.from; tick < p.until; tick++) if (at(tick).some(isMoved)) return true
  return false
}

/** Whether a lever was moved afresh during a prompt. */
function movedIn(p: Prompt, at: LeversAt): boolean {
  const held = at(p.from).map(isMoved)
  for (let tick = p.from; tick < p.until; tick++)
    for (const [axis, u] of at(tick).entries()) {
      if (!isMoved(u)) held[axis] = false
      else if (!held[axis]) return true
    }
  return false
}

function waitResponse(p: Prompt, at: LeversAt): Response {
  const reason = p.who === 'other' ? 'obeyed-other' : p.signal === 'unknown' ? 'never-agreed' : 'without-signal'
  return {
    by: p.by,
    signal: p.signal,
    who: p.who,
    wants: 'nothing',
    after_s: null,
    marks: null,
    guessed: false,
    fault: movedIn(p, at) ? reason : null,
  }
}

/** Every lever of every tick, kept: each prompt looks at its own more than once. */
function leversOfRun(run: { inputs: LeverInputs; stops: readonly number[] }, axes: number, ticks: number): LeversAt {
  const from = leversFrom(run.inputs, axes)
  const changed = new Set(run.inputs.map(([tick]) => tick))
  const stops = new Set(run.stops)
  const none = Array.from({ length: axes }, () => 0)
  let stopped = false
  const kept = Array.from({ length: ticks }, (_, tick) => {
    const levers = from.at(tick)
    if (stops.has(tick)) stopped = true
    else if (changed.has(tick)) stopped = false
    return stopped ? none : [...levers]
  })
  return (tick) => kept[tick] ?? none
}

const quantile = (sorted: readonly number[], share: number): number | null =>
  sorted.length === 0 ? null : (sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)] ?? null)

/**
 * What a run of signals came to. A wrong way fails however quick, and so does a stop that took over a second and a half, and moving when nobody who
 * may had asked.
 *
 * @param motions the rig’s, in the order of its axes
 * @param run.latency_s the device’s own delay, at most a tenth of a second
 */
export function signalMarks(
  course: readonly Prompt[],
  motions: readonly string[],
  run: { inputs: LeverInputs; stops: readonly number[]; latency_s: number },
): SignalMarks {
  const at = leversOfRun(run, motions.length, course.at(-1)?.until ?? 0)
  const responses = course.map((p, i) =>
    p.wants === 'stop'
      ? stopResponse(p, course[i - 1], at, run.latency_s)
      : p.wants === 'nothing'
        ? waitResponse(p, at)
        : moveResponse(p, p.wants, motions, at, run.latency_s),
  )
  const fails = (r: Response) => r.fault !== null && r.fault !== 'slow' && r.fault !== 'no-answer'
  return summed('answered', responses, course.at(-1)?.until ?? 0, fails)
}

/** Marks and times of all of them; where any fails, nothing that the others gave makes it a pass. */
export function summed(
  way: SignalMarks['way'],
  responses: Response[],
  until: number,
  failed: (r: Response) => boolean,
): SignalMarks {
  const counted = responses.flatMap((r) => (r.marks === null ? [] : [r.marks]))
  const times = responses.flatMap((r) => (r.marks !== null && r.after_s !== null ? [r.after_s] : [])).sort((a, b) => a - b)
  const guesses = responses.filter((r) => r.guessed).length
  const fails = responses.some(failed)
  const mean = counted.length === 0 ? 0 : (100 * counted.reduce((sum, m) => sum + m, 0)) / counted.length
  return {
    way,
    responses,
    median_s: quantile(times, 0.5),
    p90_s: quantile(times, 0.9),
    worst_s: times.at(-1) ?? null,
    guesses,
    lasts_s: until * tick_s,
    score: fails ? Math.min(failed_score, mean) : mean,
    passed: !fails && mean >= pass_score && guesses <= most_guesses,
  }
}
