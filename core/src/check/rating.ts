import { byUse, type Finding, found, shareOf } from '../finding/finding'
import type { SlewStep } from '../parts/stability/slew'
import { nominal } from '../quantity/measured'
import { NOT_RATED, UNREACHABLE } from './area'
import type { Check } from './check'
import { worstOnPath } from './choose-table'
import type { LiftContext } from './context'
import { gantryRating } from './gantry'
import { runwayRating } from './runway'
import { straddleRating } from './straddle'
import { truckRating } from './truck-rating'

/** Everything lifted against the machine's own table, at the worst point of the path. */
export const ratingCheck: Check<'rating'> = {
  id: 'rating',
  since: 1,
  run: (ctx) => {
    const { choice, step } = ctx
    if (choice.by === 'sector') {
      const other = choice.other && { outriggers: choice.other.short.join(', '), other: choice.other.configuration.label }
      const detail = { table: choice.chosen.configuration.label, ...other }
      return [found({ check: 'rating', verdict: 'outside', reason: 'outside-sector', detail })]
    }
    if (choice.by !== 'table') return []
    const { radius_m, read } = worstOnPath(choice.chosen, ctx.stretch, choice.rule)
    const at = { radius_m, slew_deg: slewWithRadius(step, radius_m) }
    const { gross_kg, basis } = read
    const table = choice.chosen.configuration.label
    if (gross_kg === 'not-rated') {
      const detail = { table, boom_m: step.boom_m }
      return [found({ check: 'rating', verdict: 'outside', reason: 'not-rated', at, detail })]
    }
    return judged(ctx, gross_kg, at, { table, boom_m: step.boom_m, rule: choice.rule, basis })
  },
  field: ({ used_kg }) => [
    {
      id: 'rating',
      weighs: false,
      useAt: ({ ring, table }) => {
        const kg = ring.gross_kg[table] ?? null
        return kg === null ? NOT_RATED : kg > 0 ? used_kg / kg : UNREACHABLE
      },
    },
  ],
  truck: truckRating,
  runway: runwayRating,
  gantry: gantryRating,
  straddle: straddleRating,
  heldBackBy: ['table', 'mass'],
  impliedBy: [],
  remedies: [
    'support',
    'radius',
    'slew-direction',
    'extension',
    'counterweight',
    'boom',
    'set-down-slew',
    'load-centre',
    'height',
    'retract-first',
    'stage',
    'centre',
    'linkage',
    'mass',
    'split',
  ],
}

function judged(
  { hook, step, near_share }: LiftContext,
  gross_kg: number,
  at: { radius_m: number; slew_deg: number },
  detail: Extract<Finding, { reason: 'capacity'; check: 'rating' }>['detail'],
): Finding[] {
  if (!hook) return []
  const onBoom_kg = hook.deductions.filter((d) => d.on === 'boom').reduce((s, d) => s + d.mass_kg, 0)
  const used_kg = hook.load_kg + hook.deductions.reduce((s, d) => s + d.mass_kg, 0)
  const utilisation = shareOf(used_kg, gross_kg)
  const verdict = byUse(utilisation, near_share)
  // A boom bends outwards under load: without the bend the true radius is greater, and the rating is not proven.
  const unknownBend = step.radiusBasis === null && verdict !== 'outside'
  return [
    found({
      check: 'rating',
      verdict: unknownBend ? 'not-proven' : verdict,
      reason: unknownBend ? 'bend-unknown' : 'capacity',
      quantity: 'mass',
      measured: used_kg,
      nominal: hook.totalNominal_kg + onBoom_kg,
      limit: gross_kg,
      utilisation,
      at,
      detail,
    }),
  ]
}

/** The slew of whichever end stands nearer to a radius. */
export function slewWithRadius({ pickUp, setDown }: SlewStep, radius_m: number): number {
  const off = (p: SlewStep['pickUp']) => Math.abs(nominal(p.radius_m) - radius_m)
  return off(setDown) <= off(pickUp) ? setDown.slew_deg : pickUp.slew_deg
}
