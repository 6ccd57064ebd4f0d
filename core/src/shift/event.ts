import { z } from 'zod'
import { occasion } from '../inspection/walkround'
import { personRef } from '../person-ref'
import { orderEvent } from '../procedure/event'
import { moment } from '../quantity/date'
import { handover, inspectionEntry, liftOutcome, liftRecord, setupRecord, shift, siteRecord } from './shift'

const named = { id: z.string(), name: z.string() }
/** When it happened, and who did it. */
const told = { at: moment, by: personRef }
const event = <K extends string, S extends z.core.$ZodShape>(kind: K, what: S) =>
  z.strictObject({ kind: z.literal(kind), ...told, ...what })

/** Everything that can happen in a shift. A shift is what its events make of it (`project`), in the order they are recorded. */
export const shiftEvent = z.discriminatedUnion('kind', [
  event('shift-opened', {
    shift: z.string(),
    machine: z.object({ ...named, revision: z.number() }),
    place: z.object(named),
    signOn: shift.shape.signOn,
  }),
  event('inspection-opened', { inspection: z.string(), occasion }),
  event('inspection-entry', { inspection: z.string(), entry: inspectionEntry }),
  event('inspection-finished', { inspection: z.string(), part: z.enum(['first', 'raised']) }),
  event('hands-on', { inspection: z.string() }),
  event('hands-off', { inspection: z.string() }),
  event('site-recorded', { site: siteRecord }),
  event('machine-moved', { place: z.object(named), words: z.string() }),
  event('setup-recorded', { setup: setupRecord.omit({ at: true }) }),
  event('order', { events: z.array(orderEvent).min(1) }),
  event('override-used', { use: shift.shape.overrides.element.omit({ at: true, followedAt: true }) }),
  event('override-followed', { use: z.string() }),
  event('lift-proved', { lift: liftRecord.omit({ at: true, outcome: true }) }),
  event('lift-outcome', { lift: z.string(), outcome: liftOutcome }),
  event('shift-closed', { handover }),
])
export type ShiftEvent = z.infer<typeof shiftEvent>
export type ShiftEventKind = ShiftEvent['kind']
