import { existsSync, readdirSync, readFileSync } from 'node:fs'
import {
  assess,
  type Case,
  composeMachine,
  feetOf,
  type LiftPlan,
  liftsOnOutriggers,
  type Machine,
  type OutriggerCrane,
  type OutriggerSetting,
  outriggersIn,
  type Place,
  piecesFile,
  placeDefinition,
  procedurePieces,
  type RatingTable,
  ratingTable,
  type SetupPlan,
  type SlewStep,
} from '../src'

const read = (path: string) => JSON.parse(readFileSync(new URL(`../../demo/${path}`, import.meta.url), 'utf8'))

const maybe = (path: string) => (existsSync(new URL(`../../demo/${path}`, import.meta.url)) ? read(path) : undefined)

/** A machine of the demo world, whole. */
export function demoMachine(id: string): Machine {
  return composeMachine(read(`machines/${id}.json`), {
    model: maybe(`models/${id}.json`),
    template: maybe(`walkrounds/${id}.json`),
    pieces: piecesFile.parse(read('pieces/pieces.json')),
    procedures: maybe(`procedures/${id}.json`),
    procedurePieces: procedurePieces.parse(read('pieces/procedures.json')),
  })
}
export const demoMachines = readdirSync(new URL('../../demo/machines/', import.meta.url)).map((f) => f.replace('.json', ''))

function crane(id: string): OutriggerCrane {
  const m = demoMachine(id)
  if (!liftsOnOutriggers(m)) throw new Error(`${id} is no crane`)
  return m
}

export const tern: OutriggerCrane = crane('tern')
export const ternTable: RatingTable = ratingTable.parse(read('tables/tern-main.json'))
export const demoPlace = (id: string): Place => placeDefinition.parse(read(`places/${id}.json`))
export const northQuay: Place = demoPlace('north-quay')
/** The same place with nothing in it: for what the surroundings have no say in. */
export const openField: Place = { ...northQuay, features: [] }
export const demoTable = (id: string): RatingTable => ratingTable.parse(read(`tables/${id}.json`))
export const deck = northQuay.ground.find((g) => g.id === 'deck') ?? null

type Setting = OutriggerSetting
type Stop = Setting['at']['stop']

interface SetupOver {
  left?: Stop
  right?: Stop
  level?: SetupPlan['level']
  counterweight?: string
  partsOfLine?: number
}

/** Tern beside the wall: left legs as far out as asked, the others full, large mats on the quay deck. */
export function ternSetup(over: SetupOver = {}): SetupPlan {
  const mat = northQuay.mats.find((m) => m.id === 'mat-12') ?? null
  const outrigger = (id: string, stop: Stop) => ({ id, at: { stop }, mat, ground: deck, stroke_m: 0.2 })
  const [left, right] = [over.left ?? 'fullyExtended', over.right ?? 'fullyExtended']
  return {
    format: 'geolabe.setup/2',
    place: 'north-quay',
    position: { x_m: 18, y_m: 4.3, heading_deg: 0 },
    standing: {
      on: 'outriggers',
      outriggers: [outrigger('FL', left), outrigger('FR', right), outrigger('RL', left), outrigger('RR', right)],
    },
    fitted: { counterweight: over.counterweight ?? 'heavy', partsOfLine: over.partsOfLine ?? 4 },
    level: over.level ?? { pitch_deg: 0.1, roll_deg: 0, levelVerified: true },
    confirmed: [],
  }
}

/** Where its feet then stand. */
export const ternFeet = (setup: SetupPlan) => feetOf(tern.outriggers, outriggersIn(setup.standing))

/** The same set-up with its outriggers changed. */
export function withOutriggers(setup: SetupPlan, change: (o: Setting) => Setting): SetupPlan {
  return { ...setup, standing: { on: 'outriggers', outriggers: outriggersIn(setup.standing).map(change) } }
}

export type LiftOver = Partial<Omit<SlewStep, 'do'>> & Partial<LiftPlan['hung']> & Pick<LiftPlan, 'configuration'>

/** A lift of one step, what is left out as below. */
export function ternLift({ load, rigging, rigging_height_m, slings, configuration, ...step }: LiftOver = {}): LiftPlan {
  return {
    format: 'geolabe.lift/2',
    hung: {
      ...(rigging_height_m === undefined ? {} : { rigging_height_m }),
      ...(slings ? { slings } : {}),
      load: load ?? { name: 'Pump skid', mass_kg: 2850, massSource: 'marked', windArea_m2: 3.1, dragCoefficient: 1.2 },
      rigging: rigging ?? [{ name: 'four-leg chain sling', mass_kg: 60, on: 'hook' }],
    },
    steps: [
      {
        do: 'slew',
        laden: true,
        boom_m: 19.4,
        pickUp: { radius_m: 7, slew_deg: 250 },
        setDown: { radius_m: 9, slew_deg: 300 },
        slewDirection: 'anticlockwise',
        radiusBasis: 'measured-under-load',
        ...step,
      },
    ],
    ...(configuration === undefined ? {} : { configuration }),
  }
}

/** The one step of such a lift. */
export function onlyStep({ steps }: LiftPlan): SlewStep {
  const [step] = slews(steps)
  if (!step) throw new RangeError('a lift without a slew')
  return step
}
/** The slews of a lift. */
export const slews = (steps: LiftPlan['steps']): SlewStep[] => steps.flatMap((s) => (s.do === 'slew' ? [s] : []))
/** A lift with another load, or its steps otherwise. */
export const withLoad = (lift: LiftPlan, load: Partial<LiftPlan['hung']['load']>): LiftPlan => ({
  ...lift,
  hung: { ...lift.hung, load: { ...lift.hung.load, ...load } },
})
export const withSteps = (lift: LiftPlan, to: Partial<SlewStep>): LiftPlan => ({
  ...lift,
  steps: slews(lift.steps).map((s) => ({ ...s, ...to })),
})

/** Everything that a machine asks people to confirm, but these. */
export const confirmedBut = ({ evidence }: Pick<Machine, 'evidence'>, without: readonly string[] = []): SetupPlan['confirmed'] =>
  evidence.filter((e) => !without.includes(e.id)).map((e) => ({ id: e.id, by: 'Ines Haldane', at: '2026-06-01T07:00:00.000Z' }))

/** A tool fitted, and its name as read on the display: the same, unless something else, or nothing, is given. */
export const toolRead = (tool: string, job: { shown?: string | undefined }): SetupPlan['fitted'] => {
  const shown = 'shown' in job ? job.shown : tool
  return { attachment: tool, ...(shown ? { selected: { attachment: shown } } : {}) }
}

/** Verdict, the check that governs (or its id, which names its subject too) and how much of it is used, to a thousandth. */
export function judgedBy(c: Case, by: 'check' | 'id' = 'check') {
  const { verdict, governing } = assess(c)
  return [verdict, governing?.[by], governing?.utilisation == null ? null : Math.round(governing.utilisation * 1000) / 1000]
}
