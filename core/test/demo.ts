import { existsSync, readdirSync, readFileSync } from 'node:fs'
import {
  type Crane,
  composeMachine,
  type LiftPlan,
  liftsOnOutriggers,
  type Machine,
  type Place,
  piecesFile,
  placeDefinition,
  type RatingTable,
  ratingTable,
  type SetupPlan,
} from '../src'

const read = (path: string) => JSON.parse(readFileSync(new URL(`../../demo/${path}`, import.meta.url), 'utf8'))

const maybe = (path: string) => (existsSync(new URL(`../../demo/${path}`, import.meta.url)) ? read(path) : undefined)

/** A machine of the demo world, whole. */
export function demoMachine(id: string): Machine {
  return composeMachine(read(`machines/${id}.json`), {
    model: maybe(`models/${id}.json`),
    template: maybe(`walkrounds/${id}.json`),
    pieces: piecesFile.parse(read('pieces/pieces.json')),
  })
}
export const demoMachines = readdirSync(new URL('../../demo/machines/', import.meta.url)).map((f) => f.replace('.json', ''))

function crane(id: string): Crane {
  const m = demoMachine(id)
  if (!liftsOnOutriggers(m)) throw new Error(`${id} is no crane`)
  return m
}

export const tern: Crane = crane('tern')
export const ternTable: RatingTable = ratingTable.parse(read('tables/tern-main.json'))
export const northQuay: Place = placeDefinition.parse(read('places/north-quay.json'))
export const demoTable = (id: string): RatingTable => ratingTable.parse(read(`tables/${id}.json`))
export const deck = northQuay.ground.find((g) => g.id === 'deck') ?? null

type Ext = SetupPlan['outriggers'][number]['extension']

/** Tern beside the wall: left legs as far out as asked, the others full, large mats on the quay deck. */
export function ternSetup(over: { left?: Ext; right?: Ext; level?: SetupPlan['level']; counterweight?: string } = {}): SetupPlan {
  const mat = northQuay.mats.find((m) => m.id === 'mat-12') ?? null
  const outrigger = (id: string, extension: Ext) => ({ id, extension, mat, ground: deck, stroke_m: 0.2 })
  const [left, right] = [over.left ?? 'fullyExtended', over.right ?? 'fullyExtended']
  return {
    place: 'north-quay',
    position: { x_m: 18, y_m: 4, heading_deg: 0 },
    counterweight: over.counterweight ?? 'heavy',
    outriggers: [outrigger('FL', left), outrigger('FR', right), outrigger('RL', left), outrigger('RR', right)],
    level: over.level ?? { pitch_deg: 0.1, roll_deg: 0, levelVerified: true },
  }
}

export function ternLift(over: Partial<LiftPlan> = {}): LiftPlan {
  return {
    load: { name: 'Pump skid', mass_kg: 2850, massSource: 'marked', windArea_m2: 3.1, dragCoefficient: 1.2 },
    rigging: [{ name: 'four-leg chain sling', mass_kg: 60, on: 'hook' }],
    parts: 4,
    boom_m: 19.4,
    pickUp: { radius_m: 7, slew_deg: 250 },
    setDown: { radius_m: 9, slew_deg: 300 },
    slewDirection: 'anticlockwise',
    radiusBasis: 'measured-under-load',
    ...over,
  }
}
