import type { Check } from './check'
import { gantryShare } from './gantry'
import { straddleShare } from './straddle'

/** What shares a load all carries some of it. */
export const shareCheck: Check<'share'> = {
  id: 'share',
  since: 1,
  // What hangs on one hook is shared with nothing.
  run: () => [],
  gantry: gantryShare,
  straddle: straddleShare,
  heldBackBy: ['mass', 'rating'],
  impliedBy: [],
  remedies: ['centre'],
}
