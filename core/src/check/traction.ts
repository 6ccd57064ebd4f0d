import type { Check } from './check'
import { towTraction } from './towing'
import { truckTraction } from './truck-travels'

/** What the braked axle of a truck needs the floor to hold, loaded and empty. */
export const tractionCheck: Check<'traction'> = {
  id: 'traction',
  since: 1,
  run: () => [],
  truck: truckTraction,
  tow: towTraction,
  heldBackBy: ['mass', 'rating'],
  impliedBy: [],
  remedies: ['facing', 'mass'],
}
