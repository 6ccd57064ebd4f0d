import type { Machine } from '../machine/machine'
import { jointsOf } from '../parts/booms/articulated'
import type { ArticulatedPart } from '../parts/booms/articulated-part'
import type { MotionName } from '../parts/drives'
import type { StraddlePart } from '../parts/hoists/straddle'
import type { RunwayPart } from '../parts/runway'
import { rad } from '../physics'
import { awayFrom, type Ranges } from '../plane/ranges'
import { atRest, BoomFigures, boomTip, hingedTip, type Moving, type TipMotion } from '../swing/tip'

/** What an axis goes between, and where it stands as practice begins. */
export interface Ends {
  least: number
  most: number
  at: number
}

/** What of it carries the rope of a machine, as practice has it. */
export interface Carrier {
  under: 'boom' | 'jib' | 'beam' | 'frame'
  /** Tip from the joints, written to the last: the angle of what is raised, how far out it is drawn or its trolley stands, its hinge. */
  of: (angle: Moving, out: Moving, outer: Moving, to?: TipMotion) => TipMotion
  /** How far from radius to the figure of the axis that sets it: luff by its angle, trolley by its own. */
  reach: { motion: 'luff' | 'trolley' | 'travel'; at: (radius_m: number) => number }
  /** Between these radii the course lies. */
  radii: { least_m: number; most_m: number }
  /** Foot of what carries the tip, behind the slew centre and over the ground. */
  foot: { back_m: number; height_m: number }
  body: Ranges | null
  /** Which way out along it is as practice begins. */
  slew_deg: number
  /** Its motions but the hoists, which go as their tip is high; where one is left out there is none, and it stands at nought. */
  ends: Partial<Record<MotionName, Ends>>
  /** Out along the boom and up, where it is hinged, by the figure of its luff. */
  elbow: ((inner_deg: number) => readonly [number, number]) | null
  /** A boom that is drawn out takes rope, in so many parts. */
  parts: number
  /** Two hoists carry it, so far apart; one end may hang so much over the other. */
  level: { span_m: number; limit_m: number } | null
  block: { mass_kg: number; leastDrop_m: number }
}

type Boom = NonNullable<Machine['boom']>
type Tip = Pick<Carrier, 'of' | 'reach' | 'radii'>

/** Raised to here at most, degrees, and laid down to here where it turns; where it does not, it goes flatter to have a way out. */
const angles_deg = { steep: 72, flat: 38, flatInLine: 25 }
const cosOf = (x: number) => Math.acos(Math.max(-1, Math.min(1, x)))

/** A boom that is raised, lowered and drawn out. */
function boomed(boom: Boom, length_m: number, flattest_deg: number): Tip {
  const { pivot, headOffset_m, minAngle_deg, maxAngle_deg } = boom
  const figures = new BoomFigures(pivot.back_m, pivot.height_m, headOffset_m)
  const length = atRest(length_m)
  const radiusAt = (deg: number) => boomTip(figures, atRest(deg), length).radius_m
  const [steep, flat] = [Math.min(angles_deg.steep, maxAngle_deg), Math.max(flattest_deg, minAngle_deg)]
  const across = Math.hypot(length_m, headOffset_m)
  const lead = Math.atan2(headOffset_m, length_m)
  return {
    of: (angle, drawn, _outer, to) => boomTip(figures, angle, drawn, to),
    radii: { least_m: radiusAt(steep), most_m: radiusAt(flat) },
    reach: { motion: 'luff', at: (r) => (lead + cosOf((r + pivot.back_m) / across)) / rad },
  }
}

/** Folded down by so much as practice begins, as far as it folds: a folding boom near its work. */
const foldedTo = ({ fold }: ArticulatedPart) => Math.max(fold.min_deg, Math.min(fold.max_deg, 30))

/** An inner and an outer boom on a hinge: raised together by the inner one, folded by the other, drawn out of that. */
function hinged(boom: Boom, folding: ArticulatedPart, length_m: number): Tip {
  const { back_m, height_m } = boom.pivot
  const { inner_m, innerAngle } = folding
  // With its hinge as it is the two turn about the foot as one, flatter than the inner boom by so much.
  const [outer_m, fold] = [length_m - inner_m, foldedTo(folding) * rad]
  const [x, y] = [inner_m + outer_m * Math.cos(fold), outer_m * Math.sin(fold)]
  const [across, flatter_deg] = [Math.hypot(x, y), Math.atan2(y, x) / rad]
  const steep = Math.min(angles_deg.steep, innerAngle.max_deg - flatter_deg)
  const radiusAt = (deg: number) => across * Math.cos(deg * rad) - back_m
  const figures = { foot: new BoomFigures(back_m, height_m, 0), inner_m: atRest(inner_m), level_deg: atRest(0) }
  const beyond = atRest(0)
  return {
    of: (angle, drawn, outer, to) => {
      beyond.at = drawn.at - inner_m
      beyond.speed = drawn.speed
      beyond.acceleration = drawn.acceleration
      return hingedTip(figures, angle, outer, beyond, to)
    },
    radii: { least_m: radiusAt(steep), most_m: radiusAt(Math.min(angles_deg.flat, steep - 10)) },
    reach: { motion: 'luff', at: (r) => flatter_deg + cosOf((r + back_m) / across) / rad },
  }
}

/** Something that goes level, so high. */
function level(motion: 'trolley' | 'travel', height_m: number, radii: Tip['radii']): Tip {
  const [figures, flat] = [new BoomFigures(0, height_m, 0), atRest(0)]
  return { of: (_angle, out, _outer, to) => boomTip(figures, flat, out, to), radii, reach: { motion, at: (r) => r } }
}

function tipOf(boom: Boom, length_m: number, flattest_deg: number): Tip {
  if (boom.trolley)
    return level('trolley', boom.pivot.height_m, {
      least_m: boom.trolley.least_m + 3,
      most_m: 0.7 * Math.max(...boom.lengths_m),
    })
  return boom.articulated ? hinged(boom, boom.articulated, length_m) : boomed(boom, length_m, flattest_deg)
}

/** A boom half drawn out, or as far as it takes to come round one end of the machine itself; one that nothing turns, as far as it goes. */
function lengthFor(boom: Boom, body: Ranges, turns: boolean): number {
  const { lengths_m } = boom
  const longest_m = Math.max(...lengths_m)
  if (!turns) return longest_m
  const half = Math.floor((lengths_m.length - 1) / 2)
  const round_m = 1.2 * Math.min(-body.x[0], body.x[1]) + 1
  return lengths_m.slice(half).find((l) => boom.trolley || tipOf(boom, l, angles_deg.flat).radii.most_m >= round_m) ?? longest_m
}

/** What of the machine does not turn, and does not move with its boom. */
function bodyOf(m: Machine): Ranges {
  const points = m.outline.plan.filter((p) => !p.slews && !p.raised).flatMap((p) => p.points)
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  return { x: [Math.min(0, ...xs), Math.max(0, ...xs)], y: [Math.min(0, ...ys), Math.max(0, ...ys)] }
}

/** Ahead, or where the machine itself reaches as far as its load, over its left side. */
const startSlew_deg = (body: Ranges, radius_m: number) => (awayFrom(body, [radius_m, 0]) > 2 ? 0 : 90)

/** So far a load keeps from the machine that it hangs from, with its ring. */
const clear_m = 1.2

/** Where nothing turns it, the course begins clear of the machine. */
function inLine({ least_m, most_m }: Carrier['radii'], body: Ranges, slew_deg: number): Carrier['radii'] {
  return { least_m: Math.max(least_m, (slew_deg === 0 ? body.x[1] : body.y[1]) + clear_m), most_m }
}

const noBlock = { mass_kg: 100, leastDrop_m: 1 }

function underBoom(m: Machine, boom: Boom, hoist: NonNullable<Machine['hoist']>): Carrier {
  const reeving = hoist.reevings[0] ?? { parts: 1, block: noBlock }
  const [body, turns] = [bodyOf(m), Boolean(m.drives?.slew)]
  const length_m = lengthFor(boom, body, turns)
  const tip = tipOf(boom, length_m, turns ? angles_deg.flat : angles_deg.flatInLine)
  const rated = { ...tip.radii, least_m: Math.max(tip.radii.least_m, m.drives?.leastRadius_m ?? 0) }
  const { pivot, articulated, trolley, lengths_m } = boom
  const [shortest_m, longest_m] = [Math.min(...lengths_m), Math.max(...lengths_m)]
  const slew_deg = startSlew_deg(body, (rated.least_m + rated.most_m) / 2)
  const radii = turns ? rated : inLine(rated, body, slew_deg)
  // In a line its way begins at the near end, otherwise there is none to go.
  const start_m = turns ? (radii.least_m + radii.most_m) / 2 : radii.least_m
  return {
    ...tip,
    under: trolley ? 'jib' : 'boom',
    radii,
    foot: { back_m: pivot.back_m, height_m: pivot.height_m },
    body,
    slew_deg,
    ends: {
      slew: { least: -400, most: 400, at: slew_deg },
      luff: { least: boom.minAngle_deg, most: boom.maxAngle_deg, at: trolley ? 0 : tip.reach.at(start_m) },
      // Of the outer boom, up positive: straight on from the inner one at nought.
      ...(articulated && {
        outer: { least: -articulated.fold.max_deg, most: -articulated.fold.min_deg, at: -foldedTo(articulated) },
      }),
      extend: { least: shortest_m, most: longest_m, at: length_m },
      ...(trolley && { trolley: { least: trolley.least_m, most: longest_m, at: start_m } }),
    },
    elbow: articulated ? elbowOf({ ...articulated, pivot }) : null,
    parts: reeving.parts,
    level: null,
    block: { mass_kg: reeving.block.mass_kg, leastDrop_m: reeving.block.leastDrop_m ?? 1 },
  }
}

/** Where a folding boom's hinge is; how the outer boom stands is nothing to it. */
function elbowOf(folding: Parameters<typeof jointsOf>[0]): NonNullable<Carrier['elbow']> {
  return (inner_deg) => {
    const { knuckle } = jointsOf(folding, { inner_deg, fold_deg: 0, extension_m: 0, slew_deg: 0 })
    return [knuckle.out_m, knuckle.height_m]
  }
}

/** A line to go along lies across the sheet: to the right is outward. */
const line_deg = -90

/** What goes along a line at one height, nothing under it: between its stops, the course so far from them. */
function along(
  motion: 'trolley' | 'travel',
  { height_m, from_m, to_m, clear_m }: { height_m: number; from_m: number; to_m: number; clear_m: number },
  own: Pick<Carrier, 'under' | 'level' | 'block'>,
): Carrier {
  const radii = { least_m: from_m + clear_m, most_m: to_m - clear_m }
  return {
    ...level(motion, height_m, radii),
    ...own,
    foot: { back_m: 0, height_m },
    body: null,
    slew_deg: line_deg,
    ends: { [motion]: { least: from_m, most: to_m, at: radii.least_m } },
    elbow: null,
    parts: 1,
  }
}

/** A hoist on a trolley along its beam: hook and chain are little of what both weigh. */
const underBeam = ({ stops, chain_m, hookDrop_m, own_kg }: RunwayPart['travel']): Carrier =>
  along(
    'trolley',
    { height_m: chain_m, ...stops, clear_m: 0.5 },
    { under: 'beam', level: null, block: { mass_kg: 0.1 * own_kg, leastDrop_m: hookDrop_m } },
  )

/** It drives over so much of its yard. */
const yard_m = 16
/** Cradle and slings that swing under its two hoists, kg, and how near to its beams they come, metres. */
const cradle = { mass_kg: 1800, leastDrop_m: 0.6 }

/** A frame that drives with its load between two hoists, straight on. */
const underFrame = ({ beams }: StraddlePart['straddle'], limit_m: number): Carrier =>
  along(
    'travel',
    { height_m: beams.height_m, from_m: 0, to_m: yard_m, clear_m: 2 },
    { under: 'frame', level: { span_m: beams.front_m - beams.rear_m, limit_m }, block: cradle },
  )

/**
 * What carries a machine's rope, where its file says that something moves it over the ground: a boom on its machine, a trolley along a
 * beam, a frame that drives; null where nothing does.
 */
export function carrierOf(m: Machine): Carrier | null {
  const { drives, boom, hoist, runway, hoists } = m
  if (boom && hoist && (drives?.luff || drives?.trolley)) return underBoom(m, boom, hoist)
  const straddle = hoists?.straddle
  if (straddle?.level_m && drives?.travel && drives.rear) return underFrame(straddle, straddle.level_m)
  return runway?.travel && drives?.trolley ? underBeam(runway.travel) : null
}
