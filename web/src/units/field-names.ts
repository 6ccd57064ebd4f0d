import type { Quantity } from '@geolabe/core'
import { t, told } from '../language/t'

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
  slingLength_m: t`Length of the slings`,
  spreadAlong_m: t`Lift points apart, along`,
  spreadAcross_m: t`Lift points apart, across`,
  outriggerBase_m: t`Outriggers apart, along`,
  outriggerSpread_m: t`Outriggers apart, across`,
  loadDepth_m: t`Load, front to back`,
  forkHeight_m: t`Fork height`,
  hookSpacing_m: t`Hook to hook`,
  cgFromFirstHook_m: t`Hook 1 to centre of gravity`,
  cg: t`Centre of gravity`,
  lifts: t`Lift points`,
  masses: t`Masses`,
  slewing: t`Masses that turn with the boom`,
  states: t`Ways of standing, the least work first`,
  footprint: t`Where the legs stand`,
  wll_kg: t`Sling’s limit (tag)`,
  eye_share: t`Left by the eye or fitting`,
  shown_kg: t`Display shows`,
  pickedAt_m: t`Picked at, along it`,
  standsAt_m: t`Edge it stands on, along it`,
  inReading_kg: t`Block and slings in the reading`,
  emptyPressure_kPa: t`Pressure, empty`,
  loadedPressure_kPa: t`Pressure, loaded`,
  first: t`First end just clear`,
  second: t`Then the other`,
  headAbove_m: t`Head stands up by`,
  headAhead_m: t`Out past the head`,
  ceiling_m: t`Ceiling, its lowest`,
  wallAway_m: t`Wall, from the middle of slewing`,
  keep_m: t`Room to keep`,
  x_m: 'x',
  y_m: 'y',
  z_m: 'z',
  cgBehindFront_m: t`Centre of gravity behind front axle`,
  faceToAxle_m: t`Fork face to front axle`,
  aheadOfFront_m: t`Ahead of front axle`,
  e: t`Eccentricity`,
  cgFromFoot_m: t`Foot to centre of gravity`,
  slingFromFoot_m: t`Foot to the sling`,
  firstHigher_m: t`First hoist higher by`,
  alignedWithin_m: t`Aligned within, by its book`,
  a_m: t`Hook 1 to centre of gravity`,
  b_m: t`Hook 2 to centre of gravity`,
  h_m: t`Centre of gravity below lift points`,
  id: t`Name`,
  eye: t`From where the operator looks`,
  shows: t`What it shows`,
  range_m: t`As far as the remote works`,
  own_kg: t`Hoist and trolley`,
  boltsEvidence: t`What confirms the far support’s bolts`,
  back_m: t`Boom foot behind slew centre`,
  upper_N: t`At most, whatever settles`,
  reaction_N: t`Carries`,
  kind: t`What is measured`,
  boomHead_kg: t`Boom mass at the head`,
  sheaveEfficiency: t`Sheave efficiency`,
  ropeLength_m: t`Rope to the load’s centre`,
  floor_kPa: t`Floor may carry`,
  contact_m2: t`Contact of one wheel`,
  least_share: t`Least to stay on the front axle`,
  resistance_share: t`Rolling resistance`,
  spreads: t`Spreads`,
  pad: t`Float`,
  mat: t`Mat`,
  lateralShare: t`Share of the side margin used`,
  slew_deg: t`Slew`,
  cgFromFace_m: t`Its centre of gravity from the face`,
}

/** A field’s name as words, where none are given above. */
export function namedBy(field: string): string {
  const bare = field.replace(
    /_(m2_per_t|kg_per_m|N_per_m|kg_m3|mps2|deg_s|cm3|m2|Nm|kPa|MPa|kV|deg|mps|mm|kgm|kg|N|m|s|V|share)$/,
    '',
  )
  const spaced = bare.replace(/_/g, ' ').replace(/([a-z0-9])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)
  return spaced.charAt(0).toUpperCase() + spaced.slice(1)
}

export const wordsOf = (field: string): string => said[field] ?? told(namedBy(field))

/** Choices whose words their name does not give by itself. */
const chosen: Record<string, string> = { partsOfLine: 'Parts of line', boom_m: 'Boom length' }
/** A choice among several as words. */
export const choiceBy = (value: string): string => chosen[value] ?? value.replace(/-/g, ' ').replace(/^./, (c) => c.toUpperCase())
export const choiceOf = (value: string): string => told(choiceBy(value))

export const unitIn = (name: string) => endings.find(([ending]) => ending.test(name))?.[1] ?? null
