import type { SignalId } from '../hand-signals/hand-signal'
import { tick_s } from '../swing/axis'
import { marksFor, type Response, type SignalMarks, summed } from './marks'
import { nextSignal, type Situation } from './situation'

/** Signals given: at which tick which. */
export type Given = readonly (readonly [tick: number, signal: SignalId])[]

/** A situation as it was shown, and what was given in it. */
export interface ShownSituation {
  situation: Situation
  from: number
  /** Given at this tick, or over at it. */
  until: number
  gave: SignalId | null
}

const ticks = (s: number) => Math.round(s / tick_s)
/** Between two situations. */
const pause_ticks = ticks(0.8)
/** A stop is wanted at once; what else comes next may be thought about. */
const halting = { full_s: 1.5, none_s: 3 }
const moving = { full_s: 3, none_s: 6 }
const isHalt = (s: SignalId | null) => s === 'stop' || s === 'emergency'
const limitsOf = (s: Situation) => (isHalt(nextSignal(s)) ? halting : moving)

/** When each situation is seen, by what has been given so far: the next comes once one is answered, or its time is over. */
export function shownBy(all: readonly Situation[], gave: Given): ShownSituation[] {
  let from = 0
  return all.map((situation) => {
    const end = from + ticks(limitsOf(situation).none_s)
    const given = gave.find(([tick]) => tick >= from && tick < end)
    const shown = { situation, from, until: given?.[0] ?? end, gave: given?.[1] ?? null }
    from = shown.until + pause_ticks
    return shown
  })
}

/** A share of the marks for the other of the two stops: the load stands, harder than it had to, or after another moment. */
const otherStop = 0.5

function responseTo({ situation, from, until, gave }: ShownSituation): Response {
  const right = nextSignal(situation) ?? 'stop'
  const base = { by: 'given', signal: right, who: 'signaller', guessed: false, gave } as const
  const wants = isHalt(right) ? 'stop' : right === 'attention' || right === 'end' ? 'nothing' : 'move'
  if (gave === null) return { ...base, wants, after_s: null, marks: 0, fault: 'no-signal' }
  const after_s = (until - from) * tick_s
  const marks = marksFor(after_s, limitsOf(situation))
  if (gave === right) return { ...base, wants, after_s, marks, fault: null }
  if (isHalt(gave) && isHalt(right)) return { ...base, wants, after_s, marks: marks * otherStop, fault: null }
  // A stop for nothing earns nothing, and is never a fault.
  return { ...base, wants, after_s, marks: 0, fault: isHalt(gave) ? null : 'wrong-signal' }
}

/** What signals that were given came to: one that asks for something else fails, and so does none where a stop was wanted. */
export function givenMarks(all: readonly Situation[], gave: Given): SignalMarks {
  const shown = shownBy(all, gave)
  const fails = (r: Response) => r.fault === 'wrong-signal' || (r.fault === 'no-signal' && r.wants === 'stop')
  return summed('given', shown.map(responseTo), shown.at(-1)?.until ?? 0, fails)
}
