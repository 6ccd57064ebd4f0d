import type { StateValue } from '../procedure/condition'
import type { EmergencyCard } from '../procedure/emergency'

/** What can be lost so that it is told at once: whoever works with one out of sight, a knock, the machine moved. */
export const losses = ['sight', 'impact', 'moved'] as const
export type Loss = (typeof losses)[number]

/** What happens while an order of work is kept. `after`: so many steps have been taken when it comes. */
export type SequenceFault = { after: number } & (
  | { kind: 'stop'; stop: string }
  | { kind: 'lost'; why: Loss }
  /** With what is found where its way asks, in order. */
  | { kind: 'symptom'; symptom: string; finds: string[] }
  | { kind: 'emergency'; card: EmergencyCard['id'] }
  /** Nothing that the file knows: of so many of them which. */
  | { kind: 'unlisted'; which: number }
  /** Somebody says that a step is done; it is, or it is not. */
  | { kind: 'claimed'; step: string; true: boolean }
  /** It was handed over as one thing and is another. */
  | { kind: 'untrue'; state: string; is: StateValue }
)

/** Faults that stand in the way until they are answered; the others lie in wait. */
export type Cue = Extract<SequenceFault, { kind: 'stop' | 'lost' | 'symptom' | 'emergency' | 'unlisted' }>
export const isCue = (f: SequenceFault): f is Cue => f.kind !== 'claimed' && f.kind !== 'untrue'

/** So many things that no list knows can be met. */
export const unlistedThings = 4
