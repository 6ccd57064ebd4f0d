import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { nth } from '../list'
import { finite, measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type Bodies, bodiesAt, motionBound_m, type Pose } from './body'
import { distanceTo, isConvex, type Obstacle, obstacle, readied } from './obstacle'

export interface Clearance {
  /** Never more than the true least distance, and at most a centimetre less; 0 where they touch. */
  least_m: number
  body: string
  obstacle: string
  at: Pose & { step: number }
}

interface Stretch {
  name: string
  obstacle: Obstacle
  step: number
  from: number
  to: number
  /** Nothing on this stretch can come nearer than this. */
  least_m: number
}

const within_m = 0.01
/** Halvings after which what is known stands: the answer is then lower than it need be, never higher. */
const most_looks = 4000
/** No machine and no obstacle that matters to one is larger, metres. */
const largest_m = 1000

const between = (p: Pose, q: Pose, t: number): Pose => ({
  slew_deg: p.slew_deg + t * (q.slew_deg - p.slew_deg),
  boom_m: p.boom_m + t * (q.boom_m - p.boom_m),
  angle_deg: p.angle_deg + t * (q.angle_deg - p.angle_deg),
  drop_m: p.drop_m + t * (q.drop_m - p.drop_m),
})

/**
 * Least distance between the moving machine with its load and what stands around, along a path of poses, each moved to the
 * next in all its motions at once. Between two samples a body can come nearer by no more than it moves; that much is taken
 * off and the stretch halved until nothing can slip between.
 */
export function clearance(input: { bodies: Bodies; path: readonly Pose[]; obstacles: readonly Obstacle[] }): Clearance {
  const obstacles = input.obstacles.map(readied)
  /** The nearest so far, last. */
  const nearest: Clearance[] = []
  const least_m = () => nearest.at(-1)?.least_m ?? Infinity
  const look = (pose: Pose, step: number, name: string, o: Obstacle) => {
    const body = nth(
      bodiesAt(input.bodies, pose).filter((x) => x.name === name),
      0,
    )
    const d = distanceTo(body, o)
    if (d < least_m()) nearest.push({ least_m: d, body: name, obstacle: o.id, at: { ...pose, step } })
    return d
  }
  const first = nth(input.path, 0)
  const names = bodiesAt(input.bodies, first).map((b) => b.name)
  const open: Stretch[] = []
  const add = (s: Omit<Stretch, 'least_m'>) => {
    const [p, q] = [nth(input.path, s.step - 1), nth(input.path, s.step)]
    const d = look(between(p, q, (s.from + s.to) / 2), s.step - 1 + (s.from + s.to) / 2, s.name, s.obstacle)
    open.push({ ...s, least_m: Math.max(0, d - (motionBound_m(input.bodies, s.name, p, q) * (s.to - s.from)) / 2) })
  }
  for (const name of names) {
    for (const obstacle of obstacles) {
      look(first, 0, name, obstacle)
      for (let step = 1; step < input.path.length; step++) add({ name, obstacle, step, from: 0, to: 1 })
    }
  }
  // The most promising stretch is halved first; done when none can hold anything nearer than what is known.
  let floor = Infinity
  for (let looks = 0; open.length > 0; looks++) {
    let i = 0
    for (let j = 1; j < open.length; j++) if (nth(open, j).least_m < nth(open, i).least_m) i = j
    const s = nth(open, i)
    floor = s.least_m
    if (floor >= least_m() - within_m || looks > most_looks) break
    open.splice(i, 1)
    const middle = (s.from + s.to) / 2
    add({ ...s, to: middle })
    add({ ...s, from: middle })
  }
  const found = nearest.at(-1)
  if (!found) throw new Refusal('nothing-there', 'Give at least one obstacle.', 'obstacles')
  return { ...found, least_m: Math.min(found.least_m, floor) }
}

function tooLarge(value: unknown, path: string): void {
  if (typeof value === 'number' && Math.abs(value) > largest_m) {
    throw new Refusal('out-of-range', 'No machine is as large as this; check the unit.', path)
  }
  if (typeof value === 'object' && value !== null) {
    for (const [k, v] of Object.entries(value)) tooLarge(v, `${path}.${k}`)
  }
}

const span = z.strictObject({
  slew_deg: measured,
  boom_m: measuredPositive,
  angle_deg: measured,
  drop_m: measuredNotNegative,
})

export const clearanceCalculator = defineCalculator({
  name: 'clearance',
  purpose: 'The least room between boom, rope, load or tail and what stands around, along the whole path.',
  source: 'Distances of convex bodies; each step’s motion subtracted, so that nothing slips between samples.',
  cautions: [
    'Lines, wires and people are not in here unless you gave them.',
    'Never work near an overhead line by this figure: use line-approach and ask the utility.',
  ],
  input: z.strictObject({
    bodies: z.strictObject({
      boom: z.strictObject({
        pivot: z.strictObject({ back_m: measured, height_m: measured }),
        halfWidth_m: measuredNotNegative,
      }),
      rope: z.strictObject({ halfWidth_m: measuredNotNegative }).optional(),
      load: z
        .strictObject({
          halfDiagonal_m: measuredNotNegative,
          height_m: measuredNotNegative,
          swing_m: measuredNotNegative,
          tagLine_m: measuredNotNegative.optional(),
        })
        .optional(),
      tail: z
        .strictObject({ radius_m: measuredPositive, halfWidth_m: measuredNotNegative, from_m: finite, to_m: finite })
        .optional(),
    }),
    path: z.array(span).min(1, 'Give at least one pose.').max(200),
    obstacles: z.array(obstacle).min(1, 'Give at least one obstacle.').max(100),
  }),
  output: z.object({
    least_m: z.number(),
    body: z.string(),
    obstacle: z.string(),
    at: z.object({ slew_deg: z.number(), boom_m: z.number(), angle_deg: z.number(), drop_m: z.number(), step: z.number() }),
  }),
  worse: {
    least_m: 'low',
    body: { with: 'least_m' },
    obstacle: { with: 'least_m' },
    at: { with: 'least_m' },
  },
  effort: 200,
  example: {
    bodies: {
      boom: { pivot: { back_m: 1.3, height_m: 2.4 }, halfWidth_m: 0.4 },
      rope: { halfWidth_m: 0.05 },
      load: { halfDiagonal_m: 0.8, height_m: 1.6, swing_m: 0.3 },
      tail: { radius_m: 3, halfWidth_m: 1.2, from_m: 1.1, to_m: 2.6 },
    },
    path: [
      { slew_deg: 0, boom_m: 16, angle_deg: 55, drop_m: 6 },
      { slew_deg: 70, boom_m: 16, angle_deg: 50, drop_m: 6 },
    ],
    obstacles: [
      {
        kind: 'prism',
        id: 'wall',
        points: [
          { x_m: 2, y_m: 11.5 },
          { x_m: 14, y_m: 11.5 },
          { x_m: 14, y_m: 13 },
          { x_m: 2, y_m: 13 },
        ],
        from_m: 0,
        to_m: 7,
      },
      { kind: 'cylinder', id: 'mast', x_m: 8, y_m: -4, radius_m: 0.2, from_m: 0, to_m: 9 },
    ],
  },
  compute: (input) => {
    input.obstacles.forEach((o, i) => {
      if (o.kind === 'prism' && !isConvex(o.points)) {
        throw new Refusal(
          'not-convex',
          `The plan of “${o.id}” bends inwards; give it as several pieces that do not.`,
          `obstacles.${i}.points`,
        )
      }
      if (o.kind === 'plane' && Math.abs(Math.hypot(o.normal.x, o.normal.y, o.normal.z) - 1) > 1e-6) {
        throw new Refusal('not-unit', 'The normal of a plane has to be one long.', `obstacles.${i}.normal`)
      }
      if (o.kind !== 'plane' && o.to_m <= o.from_m) {
        throw new Refusal('upside-down', `“${o.id}” has to end above where it begins.`, `obstacles.${i}.to_m`)
      }
    })
    tooLarge(input.bodies, 'bodies')
    tooLarge(input.obstacles, 'obstacles')
    for (const [i, p] of input.path.entries()) {
      if (Math.abs(p.slew_deg) > 3600)
        throw new Refusal('out-of-range', 'More than ten turns; check the slew.', `path.${i}.slew_deg`)
      tooLarge({ ...p, slew_deg: 0 }, `path.${i}`)
    }
    return clearance(input)
  },
})
