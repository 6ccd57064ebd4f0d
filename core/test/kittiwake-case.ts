import { type Case, type LiftPlan, liftsOnHook, type SlewStep } from '../src'
import { confirmedBut, demoMachine, demoPlace, demoTable } from './demo'

function crawler() {
  const machine = demoMachine('kittiwake')
  if (!liftsOnHook(machine) || !machine.tracks) throw new RangeError('Kittiwake stands on no tracks')
  return { machine, tracks: machine.tracks }
}
export const { machine: kittiwake, tracks } = crawler()
const place = demoPlace('gatehouse-slip')
const ground = place.ground.find((g) => g.id === 'platform') ?? null
export interface CrawlerJob {
  kg: number | null
  step?: Partial<SlewStep>
  counterweight?: string
  ground?: typeof ground
  without?: string[]
  load?: Partial<LiftPlan['hung']['load']>
  wind?: number
  level?: number | null
  dynamic?: number
}
export const crawlerCase = (job: CrawlerJob): Case => ({
  machine: kittiwake,
  tables: [demoTable('kittiwake-main')],
  setup: {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m: 6, y_m: 22, heading_deg: 0 },
    standing: { on: 'tracks', ground: job.ground === undefined ? ground : job.ground },
    fitted: { counterweight: job.counterweight ?? 'base', partsOfLine: 4 },
    level: { pitch_deg: job.level === undefined ? 0 : job.level, roll_deg: 0, levelVerified: true },
    confirmed: confirmedBut(kittiwake, job.without),
  },
  lift: {
    format: 'geolabe.lift/2',
    hung: {
      load: {
        name: 'leaf',
        mass_kg: job.kg,
        massSource: 'document',
        windArea_m2: 30,
        dragCoefficient: 1.2,
        size: { length_m: 7.6, width_m: 0.9, height_m: 4 },
        ...job.load,
      },
      rigging: [{ name: 'slings and shackles', mass_kg: 400, on: 'hook' }],
      rigging_height_m: 5,
    },
    steps: [
      {
        do: 'slew',
        laden: true,
        boom_m: 48,
        pickUp: { radius_m: 20, slew_deg: 180 },
        setDown: { radius_m: 28, slew_deg: 323.1 },
        slewDirection: 'anticlockwise',
        radiusBasis: 'measured-under-load',
        heights: { pickUp_m: 0, over_m: 2, setDown_m: 0 },
        ...job.step,
      },
    ],
    crew: { signaller: 'Wanda Rook', sightBy: 'signaller', signals: 'agreed' },
  },
  conditions: { wind_mps: job.wind ?? 0 },
  place,
  policy: { ...place.policy, dynamicFactor: job.dynamic ?? 1.1 },
})
