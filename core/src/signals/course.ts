import type { AskedSignal } from '../hand-signals/hand-signal'
import { randomFrom } from '../practice/random'
import { tick_s } from '../swing/axis'
import { movesOn, type Wanted } from './signal'

/** What is seen for a while, and what it asks. */
export interface Prompt {
  /** From this tick until before that one. */
  from: number
  until: number
  /** Seen, or heard on the radio: out of view the load is talked to its place. */
  by: 'hand' | 'voice'
  /** The one that was agreed, somebody else, or nobody: out of sight, silent. */
  who: 'signaller' | 'other' | 'nobody'
  /** A signal that was never agreed is none of them. */
  signal: AskedSignal | 'unknown'
  wants: Wanted
}

/** So many times a load is moved by hand signals, then by radio. */
const [byHand, byVoice] = [6, 4]
const ticks = (s: number) => Math.round(s / tick_s)

/** On the radio what is asked for is said anew every so many ticks, and stays in the ear for so many of them. */
const callEvery_ticks = ticks(1.2)
const call_ticks = ticks(0.8)
/** Silence for longer than this is a stop, seconds. */
export const silence_s = 3

/** Whether words are to be heard at a tick. */
export const isCalling = (p: Prompt, tick: number): boolean =>
  p.by === 'voice' && p.who !== 'nobody' && (tick - p.from) % callEvery_ticks < call_ticks

/** How a motion ends: told by the signaller, by somebody else, or because nobody is to be seen or heard any more. */
const halts: readonly [share: number, who: Prompt['who'], signal: AskedSignal][] = [
  [0.55, 'signaller', 'stop'],
  [0.7, 'signaller', 'emergency'],
  [0.85, 'other', 'stop'],
  [1, 'nobody', 'attention'],
]

/** How often something that moves is to go slower. */
const slower = 0.25

/**
 * Signals to be answered, one after the other, the same for a seed everywhere: motions, and how they end, first by hand, then by radio; between them
 * waiting, somebody else who waves or calls, a signal or a word that nobody agreed, a second stop.
 *
 * @param level how often between motions there is something that asks for nothing
 * @param motions those of the machine’s levers: what has a boom is asked to raise it
 * @returns prompts without a gap from tick 0
 * @example signalCourse(7, 0.3, ['slew', 'hoist']).filter((p) => p.signal === 'hoist').length // 2
 */
export function signalCourse(seed: number, level: number, motions: readonly string[]): Prompt[] {
  const moves = movesOn(motions)
  const random = randomFrom(seed, 'signals')
  const out: Prompt[] = []
  let by: Prompt['by'] = 'hand'
  const show = (least_s: number, most_s: number, who: Prompt['who'], signal: Prompt['signal'], wants: Wanted) => {
    const from = out.at(-1)?.until ?? 0
    out.push({ from, until: from + ticks(least_s + (most_s - least_s) * random()), by, who, signal, wants })
  }
  const anyMove = (but?: AskedSignal) => {
    const of = moves.filter((m) => m.signal !== but)
    const move = of[Math.floor(random() * of.length)]
    if (!move) throw new RangeError('Every machine hoists and lowers.')
    return move
  }
  const waits = () => {
    show(1, 2.5, 'signaller', 'attention', 'nothing')
    const decoy = random()
    if (random() >= 0.15 + 0.45 * level) return
    if (decoy < 0.5) show(1.5, 2.2, 'other', anyMove().signal, 'nothing')
    else if (decoy < 0.8) show(1.5, 2.2, 'signaller', 'unknown', 'nothing')
    else show(1, 1.5, 'signaller', 'stop', 'nothing')
    show(0.8, 1.6, 'signaller', 'attention', 'nothing')
  }
  let before: AskedSignal | undefined
  for (let i = 0; i < byHand + byVoice; i++) {
    by = i < byHand ? 'hand' : 'voice'
    if (before === undefined) waits()
    const { signal: move, way } = anyMove(before)
    show(3, 4.5, 'signaller', move, way)
    if (random() < slower) show(2.5, 3.2, 'signaller', 'slow', { ...way, slow: true })
    // Now and then the next motion is asked for with no stop between; never from hand to radio, nor at the end.
    before = random() < 0.15 && i + 1 !== byHand && i + 1 !== byHand + byVoice ? move : undefined
    if (before !== undefined) continue
    const lot = random()
    const [, who, signal] = halts.find(([share]) => lot < share) ?? halts[0] ?? [1, 'signaller', 'stop']
    const lasts_s = by === 'voice' && who === 'nobody' ? silence_s + 2 : 2
    show(lasts_s, lasts_s + 0.4, who, signal, 'stop')
  }
  show(1.5, 1.5, 'signaller', 'end', 'nothing')
  return out
}
