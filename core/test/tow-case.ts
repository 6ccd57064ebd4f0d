import type { Case, Step } from '../src'
import { demoMachine, demoPlace, demoTable } from './demo'

export type Tow = Extract<Step, { do: 'tow' }>

export const machine = demoMachine('plover')
export const place = demoPlace('north-quay')
export const [deck = null] = place.ground
const road: Tow['way'][number] = {
  kind: 'straight',
  label: 'Quay road',
  length_m: 120,
  grade_pct: 0,
  cross_pct: 0,
  width_m: 4,
  height_m: null,
  surface: 'dry',
  floor: deck,
}
const asked = ['boom-stowed', 'arm-locked', 'strapped', 'lights']

/** Plover with a van behind it. */
export function caseOf(
  step: Partial<Tow> = {},
  given: { way?: Partial<typeof road>; without?: string[]; mass_kg?: number | null } = {},
): Case {
  const tow: Tow = {
    do: 'tow',
    laden: true,
    lifted_kg: 1200,
    overhang_m: 2.6,
    toAxle_m: 3.2,
    speed_mps: 5,
    way: [{ ...road, ...given.way }],
    ...step,
  }
  const mass_kg = given.mass_kg === undefined ? 3400 : given.mass_kg
  return {
    machine,
    place,
    policy: place.policy,
    tables: [demoTable('plover-main')],
    conditions: { wind_mps: null },
    setup: {
      format: 'geolabe.setup/2',
      place: place.id,
      position: { x_m: 0, y_m: 0, heading_deg: 0 },
      standing: { on: 'wheels', state: 'wheel-lift', ground: deck, tyres: 'checked' },
      fitted: { counterweight: 'none', partsOfLine: 2 },
      level: { pitch_deg: null, roll_deg: null, levelVerified: false },
      confirmed: asked
        .filter((id) => !given.without?.includes(id))
        .map((id) => ({ id, by: 'ines-haldane', at: '2026-01-01T07:00:00.000Z' })),
    },
    lift: {
      format: 'geolabe.lift/2',
      hung: {
        load: {
          name: 'Van',
          mass_kg,
          massSource: 'document',
          windArea_m2: null,
          dragCoefficient: 1.2,
          size: { length_m: 5.2, width_m: 2, height_m: 2.4 },
        },
        rigging: [],
      },
      steps: [tow],
    },
  }
}
