import type { Check } from './check'
import { towWay } from './towing'
import { truckWay } from './truck-travels'

/** Width, height, slope and turns of a truck’s way. */
export const wayCheck: Check<'way'> = {
  id: 'way',
  since: 1,
  run: () => [],
  truck: truckWay,
  tow: towWay,
  heldBackBy: ['mass', 'rating'],
  impliedBy: [],
  remedies: ['facing'],
}
