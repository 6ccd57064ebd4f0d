import { type Case, type Crane, type LiftPlan, liftsOnHook, type SlewStep } from '../src'
import { confirmedBut, demoMachine, demoPlace, demoTable } from './demo'

function tower(): Crane {
  const machine = demoMachine('cormorant')
  if (!liftsOnHook(machine)) throw new RangeError('Cormorant has no jib')
  return machine
}
export const cormorant = tower()
export const yard = demoPlace('net-loft-yard')
const open = { ...yard, features: [] }
export interface TowerJob {
  kg: number | null
  step?: Partial<SlewStep>
  parts?: number
  until?: string | null
  without?: string[]
  load?: Partial<LiftPlan['hung']['load']>
  wind?: number | null
  place?: Case['place']
}
export const towerCase = ({
  kg,
  step,
  parts = 2,
  until = '2026-09-30',
  without = [],
  load,
  wind = 4,
  place = open,
}: TowerJob): Case => ({
  machine: cormorant,
  tables: [demoTable('cormorant-main')],
  setup: {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m: 30, y_m: 30, heading_deg: 60 },
    standing: { on: 'base', certificate: until === null ? null : { id: 'NLY-7', until } },
    fitted: { counterweight: 'fixed', partsOfLine: parts },
    level: { pitch_deg: null, roll_deg: null, levelVerified: false },
    confirmed: confirmedBut(cormorant, without),
  },
  lift: {
    format: 'geolabe.lift/2',
    hung: {
      load: {
        name: 'steel',
        mass_kg: kg,
        massSource: 'weighed',
        windArea_m2: 2.4,
        dragCoefficient: 1.2,
        size: { length_m: 3, width_m: 1, height_m: 0.6 },
        ...load,
      },
      rigging: [{ name: 'slings', mass_kg: 90, on: 'hook' }],
      rigging_height_m: 3,
    },
    steps: [
      {
        do: 'slew',
        laden: true,
        boom_m: 50,
        pickUp: { radius_m: 30, slew_deg: 0 },
        setDown: { radius_m: 36, slew_deg: 40 },
        slewDirection: 'anticlockwise',
        radiusBasis: 'measured-under-load',
        heights: { pickUp_m: 0, over_m: 4, setDown_m: 0 },
        ...step,
      },
    ],
    crew: { signaller: 'Wanda Rook', sightBy: 'operator', signals: 'agreed' },
  },
  conditions: { wind_mps: wind },
  place,
  policy: place.policy,
})
