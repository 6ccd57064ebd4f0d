import { type Case, type LiftPlan, liftsOnOutriggers, type OutriggerCrane, type SlewStep } from '../src'
import { confirmedBut, demoMachine, demoPlace, demoTable, toolRead } from './demo'

function rotating(): OutriggerCrane {
  const machine = demoMachine('curlew')
  if (!liftsOnOutriggers(machine)) throw new RangeError('Curlew has no legs')
  return machine
}
export const curlew = rotating()
const place = demoPlace('net-loft-yard')
const ground = place.ground.find((g) => g.id === place.defaultGround) ?? null
/** Under each leg, so that the ground is not what decides. */
const plate = {
  id: 'plate',
  label: 'Steel plate',
  length_m: 1.2,
  width_m: 1.2,
  thickness_m: 0.06,
  allowableBending_MPa: 160,
  mass_kg: 600,
  spreads: 'two-way',
} as const
export interface RotatingJob {
  kg: number | null
  step?: Partial<SlewStep>
  stops?: Partial<Record<string, string>>
  tool?: string
  shown?: string | undefined
  persons?: LiftPlan['hung']['persons']
  without?: string[]
  rigging_kg?: number
  wind?: number
}
export const curlewCase = (job: RotatingJob): Case => ({
  machine: curlew,
  tables: [demoTable('curlew-main')],
  setup: {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m: 34, y_m: 4, heading_deg: 90 },
    standing: {
      on: 'outriggers',
      outriggers: curlew.outriggers.map((o) => ({
        id: o.id,
        at: { stop: job.stops?.[o.id] ?? 'fullyExtended' },
        stroke_m: 0.2,
        mat: plate,
        ground,
      })),
    },
    fitted: {
      counterweight: 'own',
      partsOfLine: 1,
      ...toolRead(job.tool ?? 'hook', job),
    },
    level: { pitch_deg: 0, roll_deg: 0, levelVerified: true },
    confirmed: confirmedBut(curlew, job.without),
  },
  lift: {
    format: 'geolabe.lift/2',
    hung: {
      load: {
        name: 'frame',
        mass_kg: job.kg,
        massSource: 'weighed',
        windArea_m2: 1.4,
        dragCoefficient: 1.2,
        size: { length_m: 1.6, width_m: 1, height_m: 1 },
      },
      rigging: job.rigging_kg === 0 ? [] : [{ name: 'sling', mass_kg: job.rigging_kg ?? 25, on: 'hook' }],
      ...(job.persons ? { persons: job.persons } : {}),
    },
    steps: [
      {
        do: 'slew',
        laden: true,
        boom_m: 10,
        pickUp: { radius_m: 9.4, slew_deg: 0 },
        setDown: { radius_m: 9.4, slew_deg: 40 },
        slewDirection: 'anticlockwise',
        radiusBasis: 'measured-under-load',
        ...job.step,
      },
    ],
  },
  conditions: { wind_mps: job.wind ?? 2 },
  place: { ...place, features: [] },
  policy: place.policy,
})
