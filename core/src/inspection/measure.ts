import { z } from 'zod'
import { finite, positive } from '../quantity/measured'
import { type WearRule, wearKinds, wearRules } from '../wear/limits'

/** Days between two measurements of it by the maker's book or the site; 0: at every walk-round. Left out: as is usual for its kind. */
const every_days = finite.min(0, 'At least 0.').max(3660, 'At most ten years.').optional()

const share = positive.max(1, 'A share, at most 1.')
const name = z.string().min(1)

const change = <K extends 'loss' | 'growth'>(kind: K) =>
  z.strictObject({
    kind: z.literal(kind),
    label: name,
    unit: name,
    nominal: positive,
    limit_share: share,
    watch_share: share,
    source: name,
    every_days,
  })

/** How a reading is judged. Limits are data with their source; the maker's stand over the standard's. */
export const measure = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('range'),
    label: name,
    unit: name,
    least: finite,
    most: finite,
    /** Within this of an end it is watched. */
    watchWithin: positive.optional(),
    source: name,
    every_days,
  }),
  change('loss'),
  change('growth'),
  /** Worn parts by the core's own rules; the maker's limit, where the book gives one, goes before the standard's. */
  z.strictObject({
    kind: z.literal('wear'),
    wear: z.enum(wearKinds),
    label: name.optional(),
    /** As fitted, in the kind's unit; for fork tips the blade's length. */
    nominal: positive.optional(),
    makerLimit: finite.min(0, 'Must not be negative.').optional(),
    source: name.optional(),
    every_days,
  }),
])
export type Measure = z.infer<typeof measure>

/** What is measured, in words. */
export const measureLabel = (m: Measure) => m.label ?? (m.kind === 'wear' ? wearRules[m.wear].label : '')
export const measureUnit = (m: Measure) => (m.kind === 'wear' ? wearRules[m.wear].unit : m.unit)

/** Which way wear goes: down, up, either. What wears never comes back by itself. */
export function wearsTowards(m: Measure): 'down' | 'up' | 'either' {
  if (m.kind === 'loss') return 'down'
  if (m.kind === 'growth') return 'up'
  if (m.kind === 'range') return 'either'
  const rule: WearRule = wearRules[m.wear]
  if (rule.by === 'loss') return 'down'
  if (rule.by === 'growth' || rule.by === 'share') return 'up'
  return rule.by === 'maker' ? (rule.direction === 'least' ? 'down' : 'up') : 'either'
}

/** The readings at which a part is beyond its limit: below `least`, above `most`. */
export function limitsOf(m: Measure): { least: number | null; most: number | null } {
  if (m.kind === 'range') return { least: m.least, most: m.most }
  if (m.kind === 'loss') return { least: m.nominal * (1 - m.limit_share), most: null }
  if (m.kind === 'growth') return { least: null, most: m.nominal * (1 + m.limit_share) }
  const rule: WearRule = wearRules[m.wear]
  const nominal = m.nominal ?? 0
  switch (rule.by) {
    case 'loss':
      return { least: nominal * (1 - (m.makerLimit ?? rule.limit_share)), most: null }
    case 'either': {
      const off = nominal * (m.makerLimit ?? rule.limit_share)
      return { least: nominal - off, most: nominal + off }
    }
    case 'growth': {
      const standard = rule.most_mm === undefined ? rule.limit_share : Math.min(rule.limit_share, rule.most_mm / nominal)
      return { least: null, most: nominal * (1 + (m.makerLimit ?? standard)) }
    }
    case 'share':
      return { least: null, most: nominal * (m.makerLimit ?? rule.limit_share) }
    case 'range': {
      const around = m.nominal ?? rule.around
      const off = m.makerLimit ?? rule.most
      return { least: around - off, most: around + off }
    }
    case 'maker': {
      const limit = m.makerLimit ?? rule.limit ?? null
      return rule.direction === 'least' ? { least: limit, most: null } : { least: null, most: limit }
    }
  }
}
