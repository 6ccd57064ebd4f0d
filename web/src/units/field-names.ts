import type { Quantity } from '@geolabe/core'

/** What a field's ending says of its unit: a quantity that follows the person's choice, or a unit that is the same for all. */
const endings: [RegExp, { quantity: Quantity } | { unit: string; factor?: number }][] = [
  [/_m2_per_t$/, { unit: 'm²/t' }],
  [/_kg_per_m$/, { unit: 'kg/m' }],
  [/_N_per_m$/, { unit: 'N/m' }],
  [/_kg_m3$/, { unit: 'kg/m³' }],
  [/_mps2$/, { unit: 'm/s²' }],
  [/_deg_s$/, { unit: '°/s' }],
  [/_cm3$/, { unit: 'cm³' }],
  [/_m2$/, { quantity: 'area' }],
  [/_Nm$/, { unit: 'kNm', factor: 1000 }],
  [/_kPa$/, { quantity: 'pressure' }],
  [/_MPa$/, { unit: 'MPa' }],
  [/_kV$/, { unit: 'kV' }],
  [/_deg$/, { quantity: 'angle' }],
  [/_mps$/, { quantity: 'speed' }],
  [/_mm$/, { unit: 'mm' }],
  [/_kg$/, { quantity: 'mass' }],
  [/_kgm$/, { unit: 'kgm' }],
  [/_N$/, { quantity: 'force' }],
  [/_m$/, { quantity: 'length' }],
  [/_s$/, { unit: 's' }],
  [/_V$/, { unit: 'V' }],
  [/(_share|Share|utilisation|Use)$/, { quantity: 'share' }],
]

/** Words that a field's name does not give by itself. */
const said: Record<string, string> = {
  slingLength_m: 'Length of the slings',
  spreadAlong_m: 'Lift points apart, along',
  spreadAcross_m: 'Lift points apart, across',
  outriggerBase_m: 'Outriggers apart, along',
  outriggerSpread_m: 'Outriggers apart, across',
  loadDepth_m: 'Load, front to back',
  forkHeight_m: 'Fork height',
  hookSpacing_m: 'Hook to hook',
  cgFromFirstHook_m: 'Hook 1 to centre of gravity',
  cg: 'Centre of gravity',
  lifts: 'Lift points',
  masses: 'Masses',
  slewing: 'Masses that turn with the boom',
  footprint: 'Where the legs stand',
  wll_kg: 'Sling’s limit (tag)',
  eye_share: 'Left by the eye or fitting',
  x_m: 'x',
  y_m: 'y',
  z_m: 'z',
  cgBehindFront_m: 'Centre of gravity behind front axle',
  faceToAxle_m: 'Fork face to front axle',
  aheadOfFront_m: 'Ahead of front axle',
  e: 'Eccentricity',
  a_m: 'Hook 1 to centre of gravity',
  b_m: 'Hook 2 to centre of gravity',
  h_m: 'Centre of gravity below lift points',
  id: 'Name',
  back_m: 'Boom foot behind slew centre',
  upper_N: 'At most, whatever settles',
  reaction_N: 'Carries',
  kind: 'What is measured',
  boomHead_kg: 'Boom mass at the head',
  sheaveEfficiency: 'Sheave efficiency',
  ropeLength_m: 'Rope to the load’s centre',
  floor_kPa: 'Floor may carry',
  contact_m2: 'Contact of one wheel',
  least_share: 'Least to stay on the front axle',
  resistance_share: 'Rolling resistance',
  spreads: 'Spreads',
  pad: 'Float',
  mat: 'Mat',
  lateralShare: 'Share of the side margin used',
  slew_deg: 'Slew',
  cgFromFace_m: 'Its centre of gravity from the face',
}

export function wordsOf(name: string): string {
  const own = said[name]
  if (own) return own
  const bare = name.replace(
    /_(m2_per_t|kg_per_m|N_per_m|kg_m3|mps2|deg_s|cm3|m2|Nm|kPa|MPa|kV|deg|mps|mm|kgm|kg|N|m|s|V|share)$/,
    '',
  )
  const spaced = bare.replace(/_/g, ' ').replace(/([a-z0-9])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)
  return spaced.charAt(0).toUpperCase() + spaced.slice(1)
}

export const unitIn = (name: string) => endings.find(([ending]) => ending.test(name))?.[1] ?? null
