import type { Place } from '../place/place'
import { usualPolicy } from '../place/policies'

/** A place that is nowhere, by the usual policy, with what is put in it. */
export const madeUp = (
  of: Pick<Place, 'ground' | 'defaultGround'> & Partial<Pick<Place, 'features' | 'positions' | 'mats'>>,
): Place => ({
  format: 'geolabe.place/1',
  id: 'made-up',
  name: 'Made up',
  note: '',
  features: [],
  hazards: [],
  positions: [],
  mats: [],
  loads: [],
  policy: usualPolicy,
  ...of,
})

/** What is in order uses at most so much of its limit, what is not is over it by as much; nobody is asked about what lies between. */
export const [clear_share, over_share] = [0.8, 1.25]
