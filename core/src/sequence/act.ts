import { z } from 'zod'
import { emergencyKind } from '../procedure/emergency'
import { Refusal } from '../refusal'
import { losses } from './fault'

const id = z.string().min(1).max(80)
const words = z.string().min(1).max(2000)

/** What can be done in an order of work that is practised. */
export const sequenceAct = z.discriminatedUnion('do', [
  /** Something is looked at, whatever has been said of it. */
  z.strictObject({ do: z.literal('look'), state: id }),
  z.strictObject({ do: z.literal('step'), step: id }),
  /** It is told that a stop is pressed, that something is lost, what the machine does, which emergency it is. */
  z.strictObject({ do: z.literal('stop'), stop: id }),
  z.strictObject({ do: z.literal('lost'), why: z.enum(losses) }),
  z.strictObject({ do: z.literal('symptom'), symptom: words }),
  z.strictObject({ do: z.literal('emergency'), card: emergencyKind }),
  /** Stood still, and called. */
  z.strictObject({ do: z.literal('call') }),
  z.strictObject({ do: z.literal('override'), override: id }),
  /** The next line of a card or of a reset. */
  z.strictObject({ do: z.literal('next'), words }),
  /** Looked at what a way from a symptom asks for, and answered. */
  z.strictObject({ do: z.literal('see') }),
  z.strictObject({ do: z.literal('answer'), label: words }),
])
export type SequenceAct = z.infer<typeof sequenceAct>

/** An act and the tick at which it was done. */
export const timedAct = z.tuple([z.int().min(0), sequenceAct])
export type TimedAct = z.infer<typeof timedAct>

const mostActs = 600

/** Acts of a run, in their order. */
export const timedActs = z.array(timedAct).max(mostActs, `No order of work is ${mostActs} acts long.`)

/** @throws Refusal `inputs-order`, `inputs-too-long` */
export function checkActs(acts: readonly TimedAct[], longest_ticks: number): void {
  const back = acts.findIndex(([tick], i) => tick < (acts[i - 1]?.[0] ?? 0))
  if (back >= 0) throw new Refusal('inputs-order', 'Acts come in the order in which they were done.', `acts.${back}`)
  if ((acts.at(-1)?.[0] ?? 0) > longest_ticks)
    throw new Refusal('inputs-too-long', 'No run is longer than twenty minutes.', 'acts')
}
