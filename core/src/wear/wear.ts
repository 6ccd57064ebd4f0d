import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { finite, measuredNotNegative, positive } from '../calculator/measured'
import { Refusal } from '../refusal'
import { judgeChange } from './judge-change'
import { measureOf, type WearKind, type WearRule, watchFrom_share, wearKinds, wearRules } from './limits'

export interface Wear {
  value: number
  limit: number
  unit: string
  verdict: 'ok' | 'watch' | 'discard'
  source: string
}

/**
 * Judges a worn part. The maker's limit goes before the standard's. Shares for loss, growth and tips; else the reading.
 * @throws Refusal `needs-limit` where only the maker can say; `needs-nominal`; `implausible`.
 */
export function wear(input: {
  kind: WearKind
  nominal?: number | undefined
  measured: number
  makerLimit?: number | undefined
}): Wear {
  const rule: WearRule = wearRules[input.kind]
  const maker = input.makerLimit
  const source = maker === undefined ? rule.source : 'The maker’s limit'
  const nominal = () => {
    if (input.nominal === undefined) {
      throw new Refusal('needs-nominal', `${rule.label}: give the nominal figure it is compared with.`, 'nominal')
    }
    return input.nominal
  }
  const byUse = (value: number, limit: number): Wear['verdict'] =>
    value > limit + 1e-12 ? 'discard' : value >= limit * watchFrom_share && value > 0 ? 'watch' : 'ok'
  switch (rule.by) {
    case 'loss':
    case 'growth':
      if (maker !== undefined && maker > 1) throw new Refusal('bad-input', 'A share of the nominal, at most 1.', 'makerLimit')
      return judgeChange(measureOf(rule, nominal(), maker), input.measured)
    case 'share': {
      const value = input.measured / nominal()
      if (value > 1) throw new Refusal('implausible', `${rule.label}: more than the blade is long; measure again.`, 'measured')
      const limit = maker ?? rule.limit_share
      return { value, limit, unit: 'share', verdict: byUse(value, limit), source }
    }
    case 'range': {
      const limit = maker ?? rule.most
      const off = Math.abs(input.measured - (input.nominal ?? rule.around))
      if (off > 90)
        throw new Refusal('implausible', `${rule.label}: ${input.measured}° is no such angle; measure again.`, 'measured')
      return { value: off, limit, unit: rule.unit, verdict: byUse(off, limit), source }
    }
    case 'maker': {
      const limit = maker ?? rule.limit
      if (limit === undefined) {
        throw new Refusal(
          'needs-limit',
          `${rule.label}: only ${rule.source.toLowerCase()} can say; give it as makerLimit.`,
          'makerLimit',
        )
      }
      const { measured: value } = input
      if (rule.direction === 'most') return { value, limit, unit: rule.unit, verdict: byUse(value, limit), source }
      const verdict = value < limit - 1e-12 ? 'discard' : value <= limit / watchFrom_share ? 'watch' : 'ok'
      return { value, limit, unit: rule.unit, verdict, source }
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
  }),
  output: z.object({
    value: z.number(),
    limit: z.number(),
    unit: z.string(),
    verdict: z.enum(['ok', 'watch', 'discard']),
    source: z.string(),
  }),
  example: { kind: 'fork-heel', nominal: 45, measured: 41.2 },
  compute: wear,
})
