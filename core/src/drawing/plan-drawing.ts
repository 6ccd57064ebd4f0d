import { type Motion, motionsOf } from '../lift/motion'
import type { LiftPlan, SetupPlan } from '../lift/plan'
import type { Crane } from '../machine/crane'
import { supportOf } from '../parts/supports/states'
import type { Place } from '../place/place'
import { toPlace } from '../place/standing'
import { atSlew, type Point } from '../plane/point'
import { nominal } from '../quantity/measured'
import type { DrawingLayer, PlanDrawing, Stroke } from './drawing'

const words_m = 0.45
/** Slews between the points that a curved path is drawn through. */
const step_deg = 2

/** Is there a drawing of it: something that a boom lifts? */
export const isDrawn = ({ steps }: LiftPlan): boolean => steps.every((s) => s.do === 'slew' || s.do === 'pose')

type Move = (p: Point) => Point

const outline = (points: readonly Point[], to: Move): Stroke => ({ kind: 'line', points: points.map(to), closed: true })
/** Words of people, on one line: a line break would be read as a mark of the format by what opens the plan. */
const oneLine = (words: string) => words.replace(/[\p{Cc}\p{Zl}\p{Zp}]+/gu, ' ').trim()
const text = (at: Point, words: string): Stroke => ({ kind: 'text', at, words: oneLine(words), height_m: words_m })

/** A rectangle by its centre, its sides along and across the machine. */
const rectangle = (c: Point, { length_m, width_m }: { length_m: number; width_m: number }): Point[] =>
  [
    [1, 1],
    [-1, 1],
    [-1, -1],
    [1, -1],
  ].map(([i, j]) => ({ x_m: c.x_m + ((i ?? 0) * length_m) / 2, y_m: c.y_m + ((j ?? 0) * width_m) / 2 }))

/** Where words about a foot do not lie on it. */
const besideMat = (foot: Point, { length_m, width_m }: { length_m: number; width_m: number }): Point => ({
  x_m: foot.x_m - length_m / 2,
  y_m: foot.y_m + width_m / 2 + 0.15,
})

function placeLayer(place: Place): DrawingLayer {
  const strokes = place.features.flatMap((f): Stroke[] => {
    const points = f.geometry.points.map(([x_m, y_m]) => ({ x_m, y_m }))
    const [first] = points
    return [{ kind: 'line', points, closed: f.geometry.type === 'Polygon' }, ...(first ? [text(first, f.label)] : [])]
  })
  return { name: 'PLACE', strokes }
}

function standingLayers(machine: Crane, setup: SetupPlan, to: Move): DrawingLayer[] {
  const { contacts, points, settings } = supportOf(machine, setup.standing)
  const own = contacts.flatMap((foot) => {
    const point = points.find((o) => o.id === foot.id)
    const setting = settings.find((o) => o.id === foot.id)
    return point && setting ? [{ foot, point, setting }] : []
  })
  return [
    {
      name: 'MACHINE',
      strokes: machine.outline.plan
        .filter((p) => !p.slews)
        .map((p) =>
          outline(
            p.points.map(([x_m, y_m]) => ({ x_m, y_m })),
            to,
          ),
        ),
    },
    {
      name: 'OUTRIGGERS',
      strokes: own.flatMap(({ foot, point, setting }) => [
        { kind: 'line', points: [{ x_m: foot.x_m, y_m: 0 }, foot].map(to), closed: false } as const,
        { kind: 'circle', centre: to(foot), radius_m: 0.05 } as const,
        outline(rectangle(foot, point.float), to),
        text(to(besideMat(foot, setting.mat ?? point.float)), point.label),
      ]),
    },
    {
      name: 'MATS',
      strokes: own.flatMap(({ foot, setting: { mat } }) => (mat ? [outline(rectangle(foot, mat), to)] : [])),
    },
    {
      name: 'TAIL',
      strokes: [{ kind: 'circle', centre: to({ x_m: 0, y_m: 0 }), radius_m: machine.upper.tailSwingRadius_m }],
    },
  ]
}

/** The hook's way from pick-up to set-down, radius and slew changing together as it is drawn on the dial. */
function wayOf({ step, path }: Motion): Point[] {
  const { from_deg, to_deg } = path.arc
  const [from_m, to_m] = [nominal(step.pickUp.radius_m), nominal(step.setDown.radius_m)]
  const n = Math.max(1, Math.ceil(Math.abs(to_deg - from_deg) / step_deg))
  return Array.from({ length: n + 1 }, (_, i) =>
    atSlew(from_m + ((to_m - from_m) * i) / n, from_deg + ((to_deg - from_deg) * i) / n),
  )
}

function liftLayers(machine: Crane, lift: LiftPlan, to: Move): DrawingLayer[] {
  const { size, name } = lift.hung.load
  const ways = lift.steps.flatMap((s, i) => (s.laden ? [motionsOf(machine, s, `lift.steps.${i}`)] : []))
  const laden = ways.flatMap((motions) => {
    const [first, last] = [motions[0], motions.at(-1)]
    return first && last ? [{ pickUp: first.step.pickUp, setDown: last.step.setDown }] : []
  })
  const ends = laden.flatMap((s) => [
    { label: 'P', at: atSlew(nominal(s.pickUp.radius_m), s.pickUp.slew_deg) },
    { label: 'S', at: atSlew(nominal(s.setDown.radius_m), s.setDown.slew_deg) },
  ])
  const [length_m, width_m] = [size?.length_m ?? null, size?.width_m ?? null]
  return [
    { name: 'PATH', strokes: ways.map((m): Stroke => ({ kind: 'line', points: m.flatMap(wayOf).map(to), closed: false })) },
    {
      name: 'BOOM',
      strokes: laden.map(
        (s): Stroke => ({
          kind: 'line',
          points: [{ x_m: 0, y_m: 0 }, atSlew(nominal(s.setDown.radius_m), s.setDown.slew_deg)].map(to),
          closed: false,
        }),
      ),
    },
    {
      name: 'LOAD',
      strokes: ends.flatMap(({ label, at }): Stroke[] => [
        { kind: 'circle', centre: to(at), radius_m: 0.05 },
        text(to(at), `${label} ${name}`.trim()),
        ...(length_m === null || width_m === null ? [] : [outline(rectangle(at, { length_m, width_m }), to)]),
      ]),
    },
  ]
}

/**
 * A set-up, and a lift from it where one is given, as a plan true to scale in the place's own frame: what stands round it, machine,
 * outriggers and what lies under them, the hook's way, the load at both ends where its size is entered (its sides along the
 * machine's: how it turns on its rope nobody enters).
 *
 * @example planDrawing({ machine, place, setup, lift: null, title: 'Tern at North Quay' }).layers.map((l) => l.name) // ['PLACE', …]
 */
export function planDrawing({
  machine,
  place,
  setup,
  lift,
  title,
}: {
  machine: Crane
  place: Place
  setup: SetupPlan
  lift: LiftPlan | null
  title: string
}): PlanDrawing {
  const to: Move = (p) => toPlace(setup.position, p)
  const layers = [placeLayer(place), ...standingLayers(machine, setup, to), ...(lift ? liftLayers(machine, lift, to) : [])]
  return { title: oneLine(title), layers: layers.filter((l) => l.strokes.length > 0) }
}
