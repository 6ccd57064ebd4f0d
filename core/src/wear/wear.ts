import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { finite, measuredNotNegative, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { judgeChange } from './judge-change'
import { measureOf, type WearKind, type WearRule, watchFrom_share, wearKinds, wearRules } from './limits'

export interface Wear {
  value: number
  limit: number
  unit: string
  verdict: 'ok' | 'watch' | 'discard'
  source: string
  /** What is odd about the reading; null: nothing. */
  query: string | null
}

/** Millimetres in a unit of length. */
const millimetres = { mm: 1, cm: 10, m: 1000, in: 25.4 } as const
export type LengthUnit = keyof typeof millimetres

/** Nothing that is measured for wear is thinner when new than this; a smaller figure is in another unit. */
const thinnest_mm = 3

/** The figure of the part when new, in the unit of its rule. @throws Refusal `needs-nominal`, `implausible` */
function nominalOf({ label, unit }: WearRule, nominal: number | undefined, scale: number): number {
  if (nominal === undefined) {
    throw new Refusal('needs-nominal', `${label}: give the nominal figure it is compared with.`, 'nominal')
  }
  const given = nominal * scale
  if (unit === 'mm' && given < thinnest_mm) {
    throw new Refusal(
      'implausible',
      `${label}: ${given} mm when new is no such part; lengths are in millimetres unless unit says otherwise.`,
      'nominal',
    )
  }
  return given
}

/** At its limit a part is done; where none may be, one is too many. */
const byUse = (value: number, limit: number): Wear['verdict'] =>
  value > 0 && value >= limit - 1e-12 ? 'discard' : value > 0 && value >= limit * watchFrom_share ? 'watch' : 'ok'

/**
 * Judges a worn part. The maker's limit goes before the standard's. Shares for loss, growth and tips; else the reading.
 * @throws Refusal `needs-limit` where only the maker can say; `needs-nominal`; `implausible`.
 */
export function wear(input: {
  kind: WearKind
  nominal?: number | undefined
  measured: number
  makerLimit?: number | undefined
  /** Unit of nominal and measured where they are lengths; without it millimetres. */
  unit?: LengthUnit | undefined
}): Wear {
  const rule: WearRule = wearRules[input.kind]
  const maker = input.makerLimit
  const source = maker === undefined ? rule.source : 'The maker’s limit'
  const isLength = rule.unit === 'mm'
  if (input.unit !== undefined && !isLength) {
    throw new Refusal('unit-not-length', `${rule.label} is in ${rule.unit}; leave unit out.`, 'unit')
  }
  const scale = isLength ? millimetres[input.unit ?? 'mm'] : 1
  const measured = input.measured * scale
  const nominal = () => nominalOf(rule, input.nominal, scale)
  const query = null
  switch (rule.by) {
    case 'loss':
    case 'growth':
    case 'either':
      if (maker !== undefined && maker > 1) throw new Refusal('bad-input', 'A share of the nominal, at most 1.', 'makerLimit')
      return judgeChange(measureOf(rule, nominal(), maker), measured)
    case 'share': {
      const value = measured / nominal()
      if (value > 1) throw new Refusal('implausible', `${rule.label}: more than the blade is long; measure again.`, 'measured')
      const limit = maker ?? rule.limit_share
      return { value, limit, unit: 'share', verdict: byUse(value, limit), source, query }
    }
    case 'range': {
      const limit = maker ?? rule.most
      const off = Math.abs(input.measured - (input.nominal ?? rule.around))
      if (off > 90)
        throw new Refusal('implausible', `${rule.label}: ${input.measured}° is no such angle; measure again.`, 'measured')
      return { value: off, limit, unit: rule.unit, verdict: byUse(off, limit), source, query }
    }
    case 'maker': {
      const limit = maker === undefined ? rule.limit : maker * scale
      if (limit === undefined) {
        throw new Refusal(
          'needs-limit',
          `${rule.label}: only ${rule.source.toLowerCase()} can say; give it as makerLimit.`,
          'makerLimit',
        )
      }
      const value = measured
      if (rule.direction === 'most') return { value, limit, unit: rule.unit, verdict: byUse(value, limit), source, query }
      const verdict = value <= limit + 1e-12 ? 'discard' : value <= limit / watchFrom_share ? 'watch' : 'ok'
      return { value, limit, unit: rule.unit, verdict, source, query }
    }
  }
}

export const wearCalculator = defineCalculator({
  name: 'wear',
  purpose: 'Whether a worn part is still in order, by its limit.',
  source: 'ISO 5057, ISO 4309, ASME B30.9, B30.10, B30.16; the maker’s limit over the standard’s.',
  cautions: [
    'The maker’s book decides. A part at its limit is taken out of use, not watched.',
    'Cracks, kinks, heat and bends discard a part whatever it measures.',
  ],
  input: z.strictObject({
    kind: z.enum(wearKinds),
    nominal: positive.optional(),
    measured: measuredNotNegative,
    makerLimit: finite.min(0, 'Must not be negative.').optional(),
    unit: z.enum(['mm', 'cm', 'm', 'in']).optional(),
  }),
  output: z.object({
    value: z.number(),
    limit: z.number(),
    unit: z.string(),
    verdict: z.enum(['ok', 'watch', 'discard']),
    source: z.string(),
    query: z.string().nullable(),
  }),
  worse: {
    value: 'either',
    limit: 'either',
    unit: 'given',
    verdict: { words: ['ok', 'watch', 'discard'] },
    source: 'given',
    query: { with: 'value' },
  },
  example: { kind: 'fork-heel', nominal: 45, measured: 41.2 },
  compute: wear,
})
