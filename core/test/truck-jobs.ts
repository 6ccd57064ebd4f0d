import { type Assessment, askedFor, type Case, type LiftPlan, type Step } from '../src'
import { demoMachine, demoPlace, demoTable } from './demo'

export interface Job {
  name: string
  kg: number | null
  centre_m?: number
  z_m?: number
  /** Stacked at; left out: driven. */
  stack_m?: number
  tilt_deg?: number
  drive?: Partial<Extract<Step, { do: 'drive' }>['way'][number]>
  fitted?: Case['setup']['fitted']
  without?: string[]
  hung?: Partial<LiftPlan['hung']>
  verdict: Assessment['verdict']
  check: string
  share?: number
  change?: { kind: string; verdict: Assessment['verdict'] }
}
export interface Work {
  machine: string
  place: string
  floor: string
  fitted: Case['setup']['fitted']
  jobs: Job[]
}

function stepOf(place: ReturnType<typeof demoPlace>, job: Job): Step {
  if (job.stack_m !== undefined)
    return { do: 'mast', laden: true, waypoints: [{ height_m: job.stack_m, tilt_deg: job.tilt_deg ?? 0, sideShift_m: 0 }] }
  const floor = place.ground.find((g) => g.id === job.drive?.floor?.id) ?? place.ground.find((g) => g.id === 'trailer') ?? null
  const piece = {
    kind: 'trailer',
    nose: 'coupled',
    label: 'Trailer',
    length_m: 13.6,
    grade_pct: 0,
    cross_pct: 0,
    width_m: 2.4,
    height_m: 2.6,
    surface: 'dry',
  } as const
  return {
    do: 'drive',
    laden: true,
    way: [{ ...piece, floor, ...job.drive }],
    height_m: 0.15,
    facing: 'load-first',
    speed_mps: 1,
  }
}

/** A job as a case, everything confirmed but what it leaves out. */
export function caseOf(work: Work, job: Job): Case {
  const machine = demoMachine(work.machine)
  const place = demoPlace(work.place)
  const at = '2026-01-01T07:00:00.000Z'
  const lift: LiftPlan = {
    format: 'geolabe.lift/2',
    hung: {
      load: {
        name: job.name,
        mass_kg: job.kg,
        massSource: job.kg === null ? null : 'marked',
        windArea_m2: 1,
        dragCoefficient: 1.2,
        size: { length_m: 1.2, width_m: 0.8, height_m: 1.1 },
        cg: { x_m: job.centre_m ?? 0.6, y_m: 0, z_m: job.z_m ?? 0.55 },
      },
      rigging: [],
      ...job.hung,
    },
    steps: [stepOf(place, job)],
  }
  const setup: Case['setup'] = {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m: 0, y_m: 0, heading_deg: 0 },
    standing: { on: 'wheels', ground: place.ground.find((g) => g.id === work.floor) ?? null, tyres: 'checked' },
    fitted: { ...work.fitted, ...job.fitted },
    level: { pitch_deg: 0, roll_deg: 0, levelVerified: true },
    confirmed: askedFor(machine, {})
      .filter((e) => !job.without?.includes(e.id))
      .map((e) => ({ id: e.id, by: 'ines-haldane', at })),
  }
  return { machine, tables: machine.tables.map(demoTable), setup, lift, conditions: { wind_mps: 3 }, place, policy: place.policy }
}

export const works: Work[] = [
  {
    machine: 'puffin',
    place: 'net-loft-yard',
    floor: 'yard',
    fitted: {},
    jobs: [
      { name: 'bale', kg: 1900, stack_m: 4.5, verdict: 'inside', check: 'rating', share: 0.809 },
      { name: 'anchors', kg: 2200, stack_m: 4.5, verdict: 'near', check: 'rating', share: 0.936 },
      {
        name: 'chain',
        kg: 2450,
        stack_m: 4.5,
        verdict: 'outside',
        check: 'rating',
        share: 1.043,
        change: { kind: 'mass', verdict: 'inside' },
      },
      {
        name: 'bale',
        kg: 1500,
        stack_m: 3,
        tilt_deg: 3,
        fitted: { attachment: 'clamp' },
        verdict: 'not-proven',
        check: 'rating',
      },
    ],
  },
  {
    machine: 'whimbrel',
    place: 'net-loft-yard',
    floor: 'yard',
    fitted: {},
    jobs: [
      { name: 'anchors', kg: 1500, verdict: 'inside', check: 'floor', share: 0.8 },
      { name: 'chain', kg: 2050, verdict: 'near', check: 'floor', share: 0.942 },
      { name: 'winch', kg: 2400, verdict: 'outside', check: 'floor', share: 1.033, change: { kind: 'split', verdict: 'inside' } },
      { name: 'anchors', kg: 1500, drive: { floor: null }, verdict: 'not-proven', check: 'floor' },
    ],
  },
  {
    machine: 'dunlin',
    place: 'ice-store',
    floor: 'floor',
    fitted: { battery_kg: 750 },
    jobs: [
      { name: 'ice', kg: 1200, stack_m: 4.2, verdict: 'inside', check: 'rating', share: 0.811 },
      { name: 'ice', kg: 1400, stack_m: 4.2, verdict: 'near', check: 'rating', share: 0.946 },
      {
        name: 'ice',
        kg: 1550,
        stack_m: 4.2,
        verdict: 'outside',
        check: 'rating',
        share: 1.047,
        change: { kind: 'mass', verdict: 'inside' },
      },
      { name: 'ice', kg: 1200, stack_m: 4.2, fitted: { battery_kg: null }, verdict: 'not-proven', check: 'rating' },
    ],
  },
  {
    machine: 'bittern',
    place: 'boatyard',
    floor: 'slab',
    fitted: { attachment: 'forks', slabs: 4, extension_m: 1 },
    jobs: [
      {
        name: 'counterweight',
        kg: 24_000,
        centre_m: 0.9,
        z_m: 0.5,
        stack_m: 0.3,
        verdict: 'inside',
        check: 'rating',
        share: 0.686,
      },
      { name: 'keel', kg: 32_500, centre_m: 0.9, z_m: 0.5, stack_m: 0.3, verdict: 'near', check: 'rating', share: 0.929 },
      { name: 'keel', kg: 35_600, centre_m: 0.9, z_m: 0.5, stack_m: 0.3, verdict: 'outside', check: 'rating', share: 1.017 },
      {
        name: 'keel',
        kg: 24_000,
        centre_m: 0.9,
        z_m: 0.5,
        stack_m: 0.3,
        fitted: { extension_m: undefined },
        verdict: 'not-proven',
        check: 'rating',
      },
    ],
  },
  {
    machine: 'sandpiper',
    place: 'net-loft-yard',
    floor: 'store-floor',
    fitted: { battery_kg: 920 },
    jobs: [700, 900, 1030]
      .map((kg, i): Job => {
        const verdict = (['inside', 'near', 'outside'] as const)[i] ?? 'outside'
        const share = [0.732, 0.914, 1.032][i] ?? 1
        const change = verdict === 'outside' ? { change: { kind: 'mass', verdict: 'inside' as const } } : {}
        const hung = { persons: [{ mass_kg: 105 }] }
        return { name: 'coils', kg, z_m: 0.45, stack_m: 4.5, hung, verdict, check: 'rating', share, ...change }
      })
      .concat([
        {
          name: 'coils',
          kg: 700,
          z_m: 0.45,
          stack_m: 4.5,
          hung: { persons: [{ mass_kg: 105 }] },
          without: ['harness'],
          verdict: 'not-proven',
          check: 'evidence',
        },
        { name: 'coils', kg: 700, z_m: 0.45, stack_m: 4.5, verdict: 'not-proven', check: 'aloft' },
      ]),
  },
  {
    machine: 'avocet',
    place: 'north-quay',
    floor: 'deck',
    fitted: { attachment: 'tyre-hand', selected: { attachment: 'tyre-hand' } },
    jobs: [
      {
        name: 'fender',
        kg: 1400,
        centre_m: 3,
        z_m: 0.1,
        stack_m: 0.5,
        hung: { faces: 'dry' },
        verdict: 'inside',
        check: 'rating',
        share: 0.483,
      },
      {
        name: 'fender',
        kg: 2300,
        centre_m: 3.4,
        z_m: 0.1,
        stack_m: 0.5,
        hung: { faces: 'dry' },
        verdict: 'near',
        check: 'rating',
        share: 0.939,
      },
      {
        name: 'tyre',
        kg: 2600,
        centre_m: 3.4,
        z_m: 0.1,
        stack_m: 0.5,
        hung: { faces: 'dry' },
        verdict: 'outside',
        check: 'rating',
        share: 1.061,
        change: { kind: 'load-centre', verdict: 'inside' },
      },
      {
        name: 'fender',
        kg: 1400,
        centre_m: 3,
        z_m: 0.1,
        stack_m: 0.5,
        hung: { faces: 'wet' },
        without: ['hand'],
        verdict: 'not-proven',
        check: 'evidence',
      },
    ],
  },
]
