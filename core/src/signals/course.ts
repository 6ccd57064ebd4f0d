import type { SignalId } from '../hand-signals/hand-signal'
import { randomFrom } from '../practice/random'
import { tick_s } from '../swing/axis'
import { movingSignals, type Wanted, wantedBy } from './signal'

/** What is seen for a while, and what it asks. */
export interface Prompt {
  /** From this tick until before that one. */
  from: number
  until: number
  /** The one that was agreed, somebody else, or nobody: out of sight. */
  who: 'signaller' | 'other' | 'nobody'
  /** A signal that was never agreed is none of them. */
  signal: SignalId | 'unknown'
  wants: Wanted
}

/** So many times a load is moved. */
const moves = 10
const ticks = (s: number) => Math.round(s / tick_s)

/** How a motion ends: told by the signaller, by somebody else, or because nobody is to be seen any more. */
const halts: readonly [share: number, who: Prompt['who'], signal: SignalId][] = [
  [0.55, 'signaller', 'stop'],
  [0.7, 'signaller', 'emergency'],
  [0.85, 'other', 'stop'],
  [1, 'nobody', 'attention'],
]

/**
 * Signals to be answered, one after the other, the same for a seed everywhere: motions, and how they end; between them waiting, somebody else who
 * waves, a signal that nobody agreed, a second stop.
 *
 * @param level how often between motions there is something that asks for nothing
 * @returns prompts without a gap from tick 0
 */
export function signalCourse(seed: number, level: number): Prompt[] {
  const random = randomFrom(seed, 'signals')
  const out: Prompt[] = []
  const show = (least_s: number, most_s: number, who: Prompt['who'], signal: Prompt['signal'], wants: Wanted) => {
    const from = out.at(-1)?.until ?? 0
    out.push({ from, until: from + ticks(least_s + (most_s - least_s) * random()), who, signal, wants })
  }
  const anyMove = (but?: SignalId) => {
    const of = movingSignals.filter((m) => m !== but)
    return of[Math.floor(random() * of.length)] ?? 'hoist'
  }
  let before: SignalId | undefined
  for (let i = 0; i < moves; i++) {
    if (before === undefined) {
      show(1, 2.5, 'signaller', 'attention', 'nothing')
      const decoy = random()
      if (random() < 0.15 + 0.45 * level) {
        if (decoy < 0.5) show(1.5, 2.2, 'other', anyMove(), 'nothing')
        else if (decoy < 0.8) show(1.5, 2.2, 'signaller', 'unknown', 'nothing')
        else show(1, 1.5, 'signaller', 'stop', 'nothing')
        show(0.8, 1.6, 'signaller', 'attention', 'nothing')
      }
    }
    const move = anyMove(before)
    show(3, 4.5, 'signaller', move, wantedBy[move])
    // Now and then the next motion is asked for with no stop between.
    before = random() < 0.15 && i + 1 < moves ? move : undefined
    if (before !== undefined) continue
    const lot = random()
    const [, who, signal] = halts.find(([share]) => lot < share) ?? halts[0] ?? [1, 'signaller', 'stop']
    show(2, 2.4, who, signal, 'stop')
  }
  show(1.5, 1.5, 'signaller', 'end', 'nothing')
  return out
}
