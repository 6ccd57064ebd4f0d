import type { SetupPlan } from '../lift/plan'
import type { Feature, GroundKind, MatKind, Place } from '../place/place'
import { groundAt } from '../place/standing'
import type { Support } from '../statics/footprint'
import { madeUp } from './made-up'
import { feetAt, type Stance } from './stance'

/** How everything lies that can be wrong, before the place is drawn. */
export interface Scene {
  stops: Stance['stops']
  mat_m: number
  /** Under which foot weaker ground lies, and what it takes. */
  soft: { foot: string | null; kPa: number }
  cover: { foot: string; gap_m: number }
  trench: { side: 1 | -1; gap_m: number; turned: number; drop_m: number; soil: 'firm' | 'loose' }
  stack: { side: 1 | -1; gap_m: number; at_m: number } | null
  tilt: { deg: number; towards: number }
}

/** What the ground takes, kPa, where it is not weaker; how thick a mat is: none of it bends. */
export const hard_kPa = 300
const mat_m = 0.12
/** An edge runs so far either way: out of sight. */
const far_m = 40

const hardGround: GroundKind = { id: 'hard', label: 'rolled stone', allowable_kPa: hard_kPa, source: 'The site’s own figure.' }
const softGround = (kPa: number): GroundKind => ({
  id: 'soft',
  label: 'Backfill',
  allowable_kPa: kPa,
  source: 'The site’s own figure.',
})

const matOf = (side_m: number): MatKind => ({
  id: 'mat',
  label: 'Mat',
  length_m: side_m,
  width_m: side_m,
  thickness_m: mat_m,
  allowableBending_MPa: 60,
  mass_kg: 100,
  spreads: 'two-way',
})

const polygon = (points: [number, number][]): Feature['geometry'] => ({ type: 'Polygon', points })
const square = (x: number, y: number, half: number): Feature['geometry'] =>
  polygon([
    [x - half, y - half],
    [x + half, y - half],
    [x + half, y + half],
    [x - half, y + half],
  ])

/** An edge along one side of the machine, a little turned, its nearest point so far from the nearest mat. */
function trenchOf({ trench: t, mat_m: mat }: Scene, feet: readonly Support[]): Feature {
  const slope = Math.tan(t.turned)
  // Corners of the mats, as far out as they reach across the edge's own way.
  const corners = feet.flatMap((f) => [-1, 1].map((i) => t.side * f.y_m + mat / 2 - slope * (f.x_m + (i * mat) / 2)))
  const at = (x: number): [number, number] => [x, t.side * (Math.max(...corners) + t.gap_m / Math.cos(t.turned) + slope * x)]
  return {
    id: 'trench',
    label: 'the trench',
    kind: 'edge',
    geometry: { type: 'LineString', points: [at(-far_m), at(far_m)] },
    drop_m: t.drop_m,
    soil: t.soil,
  }
}

function featuresOf(scene: Scene, { machine }: Stance, feet: readonly Support[]): Feature[] {
  const soft = feet.find((f) => f.id === scene.soft.foot)
  // Where it lies under no foot it lies between them.
  const softAt = soft ?? { x_m: 0, y_m: 0 }
  const cover = feet.find((f) => f.id === scene.cover.foot)
  const half = 0.4
  const inwards = (cover?.x_m ?? 0) > 0 ? -1 : 1
  const coverX = (cover?.x_m ?? 0) + inwards * (scene.mat_m / 2 + scene.cover.gap_m + half)
  const stack = scene.stack
  const stackY = stack ? stack.side * (machine.upper.tailSwingRadius_m + stack.gap_m + half) : 0
  return [
    {
      id: 'soft',
      label: 'the backfill',
      kind: 'ground',
      geometry: square(softAt.x_m, softAt.y_m, scene.mat_m / 2 + 0.35),
      ground: 'soft',
    },
    ...(cover ? [{ id: 'cover', label: 'the cover', kind: 'void' as const, geometry: square(coverX, cover.y_m, half) }] : []),
    trenchOf(scene, feet),
    ...(stack ? [{ id: 'stack', label: 'the stack', kind: 'solid' as const, geometry: square(stack.at_m, stackY, half) }] : []),
  ]
}

/** The scene as a place with the machine set up in it. */
export function placed(scene: Scene, stance: Stance): { place: Place; setup: SetupPlan; feet: readonly Support[] } {
  const { machine, configuration, state } = stance
  const feet = feetAt(stance, scene.stops)
  const position = { x_m: 0, y_m: 0, heading_deg: 0 }
  const ground = [hardGround, softGround(scene.soft.kPa)]
  const place = madeUp({
    ground,
    defaultGround: 'hard',
    features: featuresOf(scene, stance, feet),
    positions: [{ id: 'here', label: 'Here', ...position }],
    mats: [matOf(scene.mat_m)],
  })
  const { counterweight_kg } = configuration.appliesTo.standing
  const { attachment } = configuration.appliesTo
  const setup: SetupPlan = {
    format: 'geolabe.setup/2',
    place: place.id,
    position,
    standing: {
      on: 'outriggers',
      ...(state ? { state: state.id } : {}),
      outriggers: feet.map((foot) => ({
        id: foot.id,
        at: { stop: scene.stops.find((s) => s.id === foot.id)?.stop ?? '' },
        mat: matOf(scene.mat_m),
        ground: ground.find((g) => g.id === groundAt(place, position, foot)) ?? null,
        stroke_m: machine.outriggers.find((o) => o.id === foot.id)?.stroke.max_m ?? 0,
      })),
    },
    fitted: {
      counterweight: machine.upper.counterweights.find((c) => c.mass_kg === counterweight_kg)?.id,
      partsOfLine: machine.hoist.reevings.at(-1)?.parts,
      ...(attachment ? { attachment } : {}),
    },
    level: {
      pitch_deg: scene.tilt.deg * Math.cos(scene.tilt.towards),
      roll_deg: scene.tilt.deg * Math.sin(scene.tilt.towards),
      levelVerified: true,
    },
    confirmed: [],
  }
  return { place, setup, feet }
}
