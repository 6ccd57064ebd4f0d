import { conditions, liftPlan, setupPlan } from '@geolabe/core'
import { z } from 'zod'

const daysAgo = z.number().int().min(0).max(3650)
const clock = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time of day, hours and minutes: 07:45.')
const id = z.string().min(1)
const some = z.number().min(0)

/** One shift of the past: who, which machine, where, from when to when, and what was read and found on the walk-round. */
const pastShift = z.strictObject({
  machine: id,
  place: id,
  operator: id,
  daysAgo,
  from: clock,
  to: clock,
  /** From the first item of the walk-round to the last, seconds. */
  walkround_s: z.number().positive(),
  hours: some.optional(),
  fuel_share: z.number().min(0).max(1).optional(),
  standsAt: z.string(),
  words: z.string(),
  /** Item → what was read; where nothing is given, a reading that is in order. */
  readings: z.record(z.string(), z.number()).optional(),
  /** Items found with a defect; the rest were in order or are not fitted. */
  defects: z.array(id).optional(),
  notFitted: z.array(id).optional(),
})
export type PastShift = z.infer<typeof pastShift>

/** A defect of the past: raised, and what became of it. */
const pastDefect = z.strictObject({
  machine: id,
  /** The shift it was found in; null: in none. */
  shiftDaysAgo: daysAgo.nullable(),
  item: z.string().nullable(),
  where: z.string().min(1),
  words: z.string().min(1),
  grade: z.enum(['hazard', 'damage', 'watch']),
  daysAgo,
  by: id,
  spot: z.strictObject({ view: z.enum(['plan', 'side']), at: z.tuple([z.number(), z.number()]) }).optional(),
  /** Repaired, looked at by another, returned: so many days ago. */
  repaired: z
    .strictObject({ daysAgo, words: z.string().min(1), parts: z.string(), hours: some, checked: z.string().min(1) })
    .optional(),
  /** Watched until so many days from today. */
  watchedUntil: z.number().int().positive().optional(),
})
export type PastDefect = z.infer<typeof pastDefect>

/** How a machine stands on an ordinary day, what was confirmed then, and what it lifts or moves. */
const ordinaryWork = z.strictObject({
  setup: setupPlan.omit({ confirmed: true }).extend({ confirmed: z.array(id) }),
  lifts: z.array(z.strictObject({ plan: liftPlan, conditions })).min(1),
})

/** What an organisation did before today, days counted back from it, so that a demo world is as old on every day. */
export const historyFile = z.strictObject({
  format: z.literal('geolabe.history/1'),
  organisation: id,
  shifts: z.array(pastShift),
  /** By machine; of one that is not among them nothing was proved. */
  work: z.record(z.string(), ordinaryWork).default({}),
  defects: z.array(pastDefect),
  /** When a duty was last done, at how many hours of the machine. */
  duties: z.array(z.strictObject({ machine: id, duty: id, daysAgo, hours: some.nullable(), by: id })),
  /** What the rating plates say, machine by machine, field by field. */
  plates: z.record(z.string(), z.record(z.string(), z.string())),
})
export type HistoryFile = z.infer<typeof historyFile>
