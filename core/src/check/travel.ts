import type { Check } from './check'
import { straddleTravel } from './straddle'
import { towTravel } from './towing'
import { truckTravel } from './truck-travels'

/** What slope, braking and turns take from the room to the edges of a truck on its way. */
export const travelCheck: Check<'travel'> = {
  id: 'travel',
  since: 1,
  run: () => [],
  truck: truckTravel,
  tow: towTravel,
  straddle: straddleTravel,
  heldBackBy: ['mass', 'rating'],
  impliedBy: [],
  remedies: ['facing', 'mass'],
}
