import { found } from '../finding/finding'
import type { Check } from './check'
import { gantryLevel } from './gantry'
import { straddleLevel } from './straddle'
import { tiltOf } from './tilt'
import { truckLevel } from './truck-stands'

/** Tilt at the worse end of its ± against what the table allows, by a bubble that was itself proved. */
export const levelCheck: Check<'level'> = {
  id: 'level',
  since: 1,
  run: ({ plan: { setup }, choice, support }) => {
    // How far it is out of plumb, its papers say.
    if (support.on === 'base') return []
    const tilt = tiltOf(setup)
    if (!tilt) return [found({ check: 'level', verdict: 'not-proven', reason: 'unread', detail: {} })]
    const limit = choice.chosen?.table.level_deg
    if (limit === undefined) return [found({ check: 'level', verdict: 'not-proven', reason: 'no-limit', detail: {} })]
    const verdict = tilt.worst_deg > limit + 1e-9 ? 'outside' : 'inside'
    const unproved = verdict === 'inside' && !setup.level.levelVerified
    return [
      found({
        check: 'level',
        verdict: unproved ? 'not-proven' : verdict,
        reason: unproved ? 'bubble-unproved' : 'tilt',
        quantity: 'angle',
        measured: tilt.worst_deg,
        nominal: tilt.nominal_deg,
        limit,
        utilisation: tilt.worst_deg / limit,
        detail: {},
      }),
    ]
  },
  truck: truckLevel,
  gantry: gantryLevel,
  straddle: straddleLevel,
  heldBackBy: [],
  impliedBy: [],
  remedies: ['level'],
}
