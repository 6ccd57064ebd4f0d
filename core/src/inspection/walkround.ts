import { z } from 'zod'
import { finite, positive } from '../calculator/measured'

const share = positive.max(1, 'A share, at most 1.')

/** How a reading is judged. Limits are data with their source; the maker's stand over the standard's. */
export const measure = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('range'),
    label: z.string().min(1),
    unit: z.string().min(1),
    least: finite,
    most: finite,
    /** Within this of an end it is watched. */
    watchWithin: positive.optional(),
    source: z.string().min(1),
  }),
  z.strictObject({
    kind: z.literal('loss'),
    label: z.string().min(1),
    unit: z.string().min(1),
    nominal: positive,
    limit_share: share,
    watch_share: share,
    source: z.string().min(1),
  }),
  z.strictObject({
    kind: z.literal('growth'),
    label: z.string().min(1),
    unit: z.string().min(1),
    nominal: positive,
    limit_share: share,
    watch_share: share,
    source: z.string().min(1),
  }),
])
export type Measure = z.infer<typeof measure>

const walkItem = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  /** What to look for, in a few words. */
  look: z.string().min(1),
  why: z.string().optional(),
  /** Where it is, and which cover to open. */
  where: z.string().optional(),
  cover: z.string().optional(),
  mayBeMissing: z.boolean().optional(),
  measure: measure.optional(),
})
export type WalkItem = z.infer<typeof walkItem>

const zone = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  part: z.enum(['ground', 'cab', 'functions']),
  /** Where one stands for it, on the plan, metres. */
  at: z.tuple([finite, finite]),
  before: z.array(z.string()).optional(),
  items: z.array(walkItem).min(1),
})
export type Zone = z.infer<typeof zone>

/** Zones in walking order: the ground once round, then the cab, then what is proved running. */
export const walkround = z.strictObject({ before: z.array(z.string()), zones: z.array(zone).min(1) }).superRefine((w, ctx) => {
  const seen = new Set<string>()
  w.zones.forEach((z1, i) => {
    z1.items.forEach((item, j) => {
      if (seen.has(item.id))
        ctx.addIssue({ code: 'custom', path: ['zones', i, 'items', j, 'id'], message: `Two items have the id “${item.id}”.` })
      seen.add(item.id)
    })
  })
})
export type Walkround = z.infer<typeof walkround>

export function itemsOf(w: Walkround): { zone: Zone; item: WalkItem }[] {
  return w.zones.flatMap((z1) => z1.items.map((item) => ({ zone: z1, item })))
}
