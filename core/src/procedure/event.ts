import { z } from 'zod'
import { personRef } from '../person-ref'
import { moment } from '../quantity/date'
import { finite, notNegative } from '../quantity/measured'
import { stateValue } from './condition'
import { losing, orderStation } from './file'

/** One act in the order of work, by whom, and when by the device's own clock. */
const told = { id: z.string().min(1).max(80), at: moment, by: personRef, device: z.string().max(60).default('') }
const event = <K extends string, S extends z.core.$ZodShape>(kind: K, what: S) =>
  z.strictObject({ do: z.literal(kind), ...told, ...what })

/** What a device may tell. */
export const orderAct = z.discriminatedUnion('do', [
  /** What something is now, where nobody knew. */
  event('found', { state: z.string(), to: stateValue }),
  event('confirm', { step: z.string() }),
  /** *again*: far from what was read before, and read once more: it stands, with that doubt. */
  event('measure', { input: z.string(), value: finite, tolerance: notNegative, again: z.boolean().default(false) }),
  event('hold-begin', { step: z.string() }),
  /** Let go; *failed*: what was watched moved, or the control had to be let go. */
  event('hold-end', { step: z.string(), failed: z.boolean().default(false) }),
  /** A step that was tried and refused: it changes nothing, and is kept. */
  event('refused', { step: z.string(), unmet: z.array(z.string()).max(40) }),
  /** The second of two people. */
  event('second', { step: z.string() }),
  event('mistap', { of: z.string() }),
  event('stop-pressed', { stop: z.string() }),
  event('reset', { stop: z.string() }),
  event('override-begin', { override: z.string() }),
  /** Let go; words come afterwards, never with a load up. */
  event('override-end', { words: z.string().trim().max(500).default('') }),
  event('lost', { why: losing }),
  /** It does something that it should not: until the way from it is at its end, it is only brought back to safety. */
  event('symptom-begin', { symptom: z.string().max(80) }),
  /** A way from a symptom, gone to its end: what was answered, how it ended, and what does not hold any more. *mistaken*: there was none. */
  event('symptom', {
    symptom: z.string().max(80),
    answers: z.array(z.string().max(200)).max(20),
    end: z.enum(['continue', 'stop', 'call', 'mistaken']),
    loses: z.array(losing).max(10),
  }),
  /** What has been planned, as far as computed conditions ask for it. */
  event('plan', { plan: z.strictObject({ setup: z.unknown() }) }),
  event('emergency', { card: z.string() }),
  event('as-it-stands', {}),
])
export type OrderAct = z.infer<typeof orderAct>

/** Everything that happens in the order of work: what devices tell, and what a shift's own events make of it. */
export const orderEvent = z.discriminatedUnion('do', [
  ...orderAct.options,
  /** A run of a station's procedures begins anew: for another lift, or somewhere else. Nobody tells it: the shift's own events do it. */
  event('begin', { station: orderStation, alike: z.boolean() }),
  /** What a proved lift lets be looked for, likewise. */
  event('proved', { lift: z.record(z.string(), z.unknown()) }),
])
export type OrderEvent = z.infer<typeof orderEvent>
export type OrderKind = OrderEvent['do']
