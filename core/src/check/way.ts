import type { Check } from './check'
import { straddleWay } from './straddle'
import { towWay } from './towing'
import { truckWay } from './truck-travels'

/** Width, height, slope and turns of a truck’s way. */
export const wayCheck: Check<'way'> = {
  id: 'way',
  since: 1,
  run: () => [],
  truck: truckWay,
  tow: towWay,
  straddle: straddleWay,
  heldBackBy: ['mass', 'rating'],
  impliedBy: [],
  remedies: ['facing'],
}
