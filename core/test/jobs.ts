import {
  type ArticulatedPose,
  type Assessment,
  askedFor,
  type Case,
  groundAt,
  type LiftPlan,
  liftsOnOutriggers,
  type OutriggerCrane,
  type Place,
  propContacts,
  type SetupPlan,
  type Standing,
  type SupportState,
  stopsOf,
} from '../src'
import { demoMachine, demoPlace, demoTable } from './demo'

export interface Job {
  name: string
  /** What hangs, without block and rigging; the source of the mass. */
  load: { mass_kg: number | null; windArea_m2?: number }
  rigging_kg?: number
  boom_m: number
  /** Through these poses, of a folding boom; boom and radius are then only said. */
  waypoints?: ArticulatedPose[]
  radius_m: number
  /** Slews from and to. */
  slew_deg?: [number, number]
  state?: string
  stops?: Record<string, string>
  partsOfLine: number
  mat?: string
  without?: string[]
  /** What the props stand on is not said. */
  propsOnUnknown?: true
  wind_mps?: number
  verdict: Assessment['verdict']
  /** The check that governs, and its share to three places. */
  check: string
  share?: number
  /** A change that is offered for it, and what the same share is then. */
  change?: { kind: string; verdict: Assessment['verdict']; share?: number }
}

export interface Work {
  machine: string
  place: string
  position: string
  mat: string | null
  jobs: Job[]
}

function crane(id: string): OutriggerCrane {
  const m = demoMachine(id)
  if (!liftsOnOutriggers(m)) throw new Error(`${id} is no crane`)
  return m
}

/** The set-up of a job: outriggers as far out as they go, on the mats of the place, everything confirmed but what the job leaves out. */
function setupOf(machine: OutriggerCrane, place: Place, work: Work, job: Job): SetupPlan {
  const position = place.positions.find((p) => p.id === work.position)
  if (!position) throw new Error(`${work.position} is no position`)
  const at = { x_m: position.x_m, y_m: position.y_m, heading_deg: position.heading_deg }
  const wanted = job.mat ?? work.mat
  const mat = place.mats.find((m) => m.id === wanted) ?? null
  const states = machine.supportStates?.filter((s) => s.for === 'lift')
  const state = states?.find((s) => s.id === job.state) ?? states?.find((s) => s.on === 'outriggers')
  const groundUnder = (p: { x_m: number; y_m: number }) => place.ground.find((g) => g.id === groundAt(place, at, p)) ?? null
  const propsOf = ({ props }: Pick<SupportState, 'props'> = {}) =>
    (props ? propContacts(props) : []).map((at) => ({
      id: at.id,
      at: { stop: 'set' },
      mat,
      ground: job.propsOnUnknown ? null : groundUnder(at),
      stroke_m: 0,
    }))
  const standing: Standing =
    state?.on === 'wheels'
      ? { on: 'wheels', state: state.id, ground: groundUnder({ x_m: 0, y_m: 0 }), tyres: 'checked' }
      : {
          on: 'outriggers',
          ...(state && { state: state.id }),
          outriggers: [
            ...propsOf(state),
            ...machine.outriggers.map((o) => {
              const stops = stopsOf(o)
              const stop = stops.find((s) => s.id === job.stops?.[o.id]) ?? stops.at(-1)
              if (!stop) throw new Error(o.id)
              return { id: o.id, at: { stop: stop.id }, mat, ground: groundUnder(stop), stroke_m: o.stroke.min_m }
            }),
          ],
        }
  const confirmed = askedFor(machine, standing)
    .filter((e) => !job.without?.includes(e.id))
    .map((e) => ({ id: e.id, by: 'ines-haldane', at: '2026-01-01T07:00:00.000Z' }))
  return {
    format: 'geolabe.setup/2',
    place: place.id,
    position: at,
    standing,
    fitted: { counterweight: machine.upper.counterweights[0]?.id ?? '', partsOfLine: job.partsOfLine },
    level: { pitch_deg: 0, roll_deg: 0, levelVerified: !job.without?.includes('bubble') },
    confirmed,
  }
}

function liftOf(job: Job): LiftPlan {
  const [from, to] = job.slew_deg ?? [180, 180]
  const heights = { pickUp_m: 0, setDown_m: 0, over_m: 0.5 }
  return {
    format: 'geolabe.lift/2',
    hung: {
      load: {
        name: job.name,
        mass_kg: job.load.mass_kg,
        massSource: job.load.mass_kg === null ? null : 'marked',
        windArea_m2: job.load.windArea_m2 ?? 0.4,
        dragCoefficient: 1.2,
        size: { length_m: 0.8, width_m: 0.8, height_m: 0.8 },
      },
      rigging_height_m: 0.6,
      rigging: job.rigging_kg ? [{ name: 'sling', mass_kg: job.rigging_kg, on: 'hook' }] : [],
    },
    steps: [
      job.waypoints
        ? {
            do: 'pose',
            laden: true,
            waypoints: job.waypoints,
            mode: 'together',
            radiusBasis: 'measured-under-load',
          }
        : {
            do: 'slew',
            laden: true,
            boom_m: job.boom_m,
            pickUp: { radius_m: job.radius_m, slew_deg: from },
            setDown: { radius_m: job.radius_m, slew_deg: to },
            slewDirection: 'anticlockwise',
            radiusBasis: 'measured-under-load',
            heights,
          },
    ],
  }
}

export function caseOf(work: Work, job: Job): Case {
  const machine = crane(work.machine)
  const place = demoPlace(work.place)
  return {
    machine,
    tables: machine.tables.map(demoTable),
    setup: setupOf(machine, place, work, job),
    lift: liftOf(job),
    conditions: { wind_mps: job.wind_mps ?? 2 },
    place,
    policy: place.policy,
  }
}

/** Heron's outer boom swings out while its inner comes down: at the bulge the head stands at 5.93 m, in the row of 6 m. */
const bulge: ArticulatedPose[] = [
  { inner_deg: 75, fold_deg: 120, extension_m: 1.9, slew_deg: 60 },
  { inner_deg: 60, fold_deg: 15, extension_m: 1.9, slew_deg: 90 },
]
const folding = { rigging_kg: 12, boom_m: 7.8, radius_m: 5.93, waypoints: bulge, partsOfLine: 2 }

export const works: Work[] = [
  {
    machine: 'heron',
    place: 'net-loft-yard',
    position: 'loft-front',
    mat: 'mat-08',
    jobs: [
      { name: 'net lead', load: { mass_kg: 900 }, ...folding, verdict: 'inside', check: 'rating', share: 0.428 },
      { name: 'winch', load: { mass_kg: 1980 }, ...folding, verdict: 'near', check: 'rating', share: 0.914 },
      {
        name: 'boiler',
        load: { mass_kg: 2300 },
        ...folding,
        verdict: 'outside',
        check: 'rating',
        share: 1.059,
        change: { kind: 'mass', verdict: 'inside', share: 0.9 },
      },
      { name: 'net lead', load: { mass_kg: 900 }, ...folding, without: ['bubble'], verdict: 'not-proven', check: 'level' },
    ],
  },
  {
    machine: 'wren',
    place: 'net-loft-yard',
    position: 'yard-middle',
    mat: 'block-04',
    jobs: [
      {
        name: 'truss',
        load: { mass_kg: 430 },
        rigging_kg: 18,
        boom_m: 4.2,
        radius_m: 3.2,
        partsOfLine: 2,
        verdict: 'inside',
        check: 'rating',
        share: 0.811,
      },
      {
        name: 'slates',
        load: { mass_kg: 490 },
        rigging_kg: 18,
        boom_m: 4.2,
        radius_m: 3.2,
        partsOfLine: 2,
        verdict: 'near',
        check: 'rating',
        share: 0.916,
      },
      {
        name: 'winch',
        load: { mass_kg: 560 },
        rigging_kg: 18,
        boom_m: 4.2,
        radius_m: 3.2,
        partsOfLine: 2,
        verdict: 'outside',
        check: 'rating',
        share: 1.039,
        change: { kind: 'radius', verdict: 'inside', share: 0.897 },
      },
      {
        name: 'truss',
        load: { mass_kg: 430 },
        rigging_kg: 18,
        boom_m: 4.2,
        radius_m: 3.2,
        partsOfLine: 2,
        without: ['section-pinned'],
        verdict: 'not-proven',
        check: 'evidence',
      },
    ],
  },
  {
    machine: 'petrel',
    place: 'north-quay',
    position: 'along',
    mat: 'mat-12',
    jobs: [
      {
        name: 'car',
        load: { mass_kg: 2300 },
        rigging_kg: 120,
        boom_m: 9.5,
        radius_m: 7,
        state: 'wheels',
        partsOfLine: 2,
        verdict: 'inside',
        check: 'rating',
        share: 0.8,
      },
      {
        name: 'van',
        load: { mass_kg: 4600 },
        rigging_kg: 120,
        boom_m: 14.5,
        radius_m: 10,
        state: 'legs',
        partsOfLine: 2,
        verdict: 'near',
        check: 'rating',
        share: 0.919,
      },
      {
        name: 'lorry',
        load: { mass_kg: 16000 },
        rigging_kg: 30,
        boom_m: 9.5,
        radius_m: 5,
        state: 'legs',
        partsOfLine: 8,
        verdict: 'outside',
        check: 'rating',
        share: 1.226,
        change: { kind: 'support', verdict: 'near', share: 0.899 },
      },
      {
        name: 'tractor',
        load: { mass_kg: 14000 },
        rigging_kg: 30,
        boom_m: 9.5,
        radius_m: 6,
        slew_deg: [180, 180],
        state: 'props',
        partsOfLine: 8,
        propsOnUnknown: true,
        verdict: 'not-proven',
        check: 'ground',
      },
    ],
  },
  {
    machine: 'turnstone',
    place: 'lighthouse-terrace',
    position: 'terrace',
    mat: 'mat-06',
    jobs: [
      {
        name: 'lens',
        load: { mass_kg: 900 },
        rigging_kg: 15,
        boom_m: 5.6,
        radius_m: 4.54,
        slew_deg: [190, 350],
        partsOfLine: 4,
        verdict: 'inside',
        check: 'rating',
        share: 0.736,
      },
      {
        name: 'pedestal',
        load: { mass_kg: 1150 },
        rigging_kg: 15,
        boom_m: 5.6,
        radius_m: 4.54,
        slew_deg: [190, 350],
        partsOfLine: 4,
        verdict: 'near',
        check: 'rating',
        share: 0.933,
      },
      {
        name: 'float',
        load: { mass_kg: 1300 },
        rigging_kg: 15,
        boom_m: 5.6,
        radius_m: 4.54,
        slew_deg: [190, 350],
        partsOfLine: 4,
        verdict: 'outside',
        check: 'rating',
        share: 1.051,
        change: { kind: 'radius', verdict: 'inside', share: 0.834 },
      },
      {
        name: 'lens',
        load: { mass_kg: 900 },
        rigging_kg: 15,
        boom_m: 5.6,
        radius_m: 4.54,
        slew_deg: [190, 350],
        partsOfLine: 4,
        without: ['leg-pins'],
        verdict: 'not-proven',
        check: 'evidence',
      },
    ],
  },
  {
    machine: 'plover',
    place: 'north-quay',
    position: 'open',
    mat: 'mat-12',
    jobs: [
      {
        name: 'skiff',
        load: { mass_kg: 2000 },
        rigging_kg: 20,
        boom_m: 8.5,
        radius_m: 6,
        partsOfLine: 2,
        verdict: 'inside',
        check: 'rating',
      },
    ],
  },
]

/** The same with everything confirmed that its way of standing asks for. */
export const everythingConfirmed = (c: Case): Case => ({
  ...c,
  setup: {
    ...c.setup,
    confirmed: askedFor(c.machine, c.setup.standing).map((e) => ({
      id: e.id,
      by: 'ines-haldane',
      at: '2026-01-01T07:00:00.000Z',
    })),
  },
})

export const worksBy = (id: string): Work => {
  const work = works.find((w) => w.machine === id)
  if (!work) throw new Error(`${id} has no work`)
  return work
}
export const heron = crane('heron')
