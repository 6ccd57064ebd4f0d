import { z } from 'zod'
import { edgeSoils, edgeStructures } from '../ground/edge'
import { soil } from '../ground/soil'
import { finite, measured, measuredNotNegative, measuredPositive, notNegative, positive } from '../quantity/measured'
import { nameId } from '../quantity/name-id'
import { practicePolicy } from './practice-policy'

/** How a mass is known; a guess is not among them. */
export const massSource = z.enum(['marked', 'document', 'worked-out', 'weighed', 'asked'])
export type MassSource = z.infer<typeof massSource>

const xy = z.tuple([finite, finite])

export const groundKind = z
  .strictObject({
    id: z.string().min(1),
    label: z.string().min(1),
    soil: soil.optional(),
    /** From a test or an engineer; stands over the soil's presumed figure. */
    allowable_kPa: positive.optional(),
    /** What a floor or deck carries under one axle standing, and under one wheel with its factor, newtons. */
    axle_N: positive.optional(),
    wheel_N: positive.optional(),
    /** What a plate carries in all, truck and load together, newtons. */
    total_N: positive.optional(),
    /** A building's class for forklifts, which stands for the axle: EN 1991-1-1. */
    floorClass: z.enum(['FL1', 'FL2', 'FL3', 'FL4', 'FL5', 'FL6']).optional(),
    source: z.string().min(1),
  })
  .refine((k) => k.soil !== undefined || k.allowable_kPa !== undefined, { message: 'Give soil or allowable_kPa.' })
export type GroundKind = z.infer<typeof groundKind>

export const feature = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  /**
   * solid: nothing can stand or sweep there · void: an outrigger must not stand there · ground: what lies underfoot · overhead: a
   * line in the air · people: where others walk · edge: where the ground drops away. For trucks besides · aisle: the middle of a way ·
   * door: across its opening · ramp, leveller, trailer: what they drive on to · rack · ceiling: what they drive under.
   */
  kind: z.enum([
    'solid',
    'void',
    'ground',
    'overhead',
    'people',
    'edge',
    'aisle',
    'door',
    'ramp',
    'leveller',
    'trailer',
    'rack',
    'ceiling',
  ]),
  /** Local metres, as GeoJSON names them. */
  geometry: z.discriminatedUnion('type', [
    z.strictObject({ type: z.literal('Polygon'), points: z.array(xy).min(3).max(200) }),
    z.strictObject({ type: z.literal('LineString'), points: z.array(xy).min(2).max(200) }),
  ]),
  ground: z.string().optional(),
  height_m: notNegative.optional(),
  voltage_kV: positive.optional(),
  /** Overhead: how far the wires may hang lower and blow out sideways from where they are drawn. */
  sag_m: notNegative.optional(),
  blowOut_m: notNegative.optional(),
  /** Edge: how deep it drops, in what; beside a structure only an engineer's own figure counts. */
  drop_m: positive.optional(),
  soil: z.enum(edgeSoils).optional(),
  structure: z.enum(edgeStructures).optional(),
  /** Solid: a building that trucks drive into, by its doors. */
  hollow: z.literal(true).optional(),
  /** Aisle: from side to side. */
  width_m: positive.optional(),
  /** Ramp, leveller, trailer: how much it rises, from where to where. */
  grade_pct: finite.min(0).max(40, 'At most 40 %; is this in degrees?').optional(),
  axis: z.tuple([xy, xy]).optional(),
  /** How far feet stay from it, by whom. */
  engineer: z.strictObject({ least_m: positive, source: z.string().min(1) }).optional(),
})
export type Feature = z.infer<typeof feature>

export const matKind = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  length_m: positive,
  width_m: positive,
  thickness_m: positive,
  allowableBending_MPa: positive,
  allowableShear_MPa: positive.optional(),
  mass_kg: notNegative,
  spreads: z.enum(['one-way', 'two-way']),
})
export type MatKind = z.infer<typeof matKind>

/** A load as it hangs, metres: length and width in plan, height. */
export const loadSize = z.strictObject({ length_m: positive, width_m: positive, height_m: positive })
export type LoadSize = z.infer<typeof loadSize>

const placeLoad = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  mass_kg: measuredPositive.nullable(),
  massSource: massSource.nullable(),
  /** Who knows it, and how they are reached: asked while its mass is not known. */
  ask: z.string().min(1).max(200).optional(),
  windArea_m2: measuredNotNegative.nullable(),
  dragCoefficient: positive,
  size: loadSize.optional(),
  /** Its centre of gravity, on forks, between towers or in slings, as a lift has it. */
  cg: z.strictObject({ x_m: measured, y_m: measured, z_m: measured }).optional(),
})
export type PlaceLoad = z.infer<typeof placeLoad>

/** From this share of a limit on it is near, unless a site says otherwise. */
export const usualNear_share = 0.9

/** How high forks are carried with a load where a site says nothing stricter, metres. */
export const usualTravelFork_m = 0.15

/** How a site wants trucks to stand and drive. Stricter it may be, by nobody's leave; a gap is never less, a share never more. */
const truckPolicy = z.strictObject({
  /** Left free on each side of a way, over a truck, and kept from its edges. */
  sideGap_m: finite.min(0.15, 'A site may ask for more than 0.15 m, never for less.').max(2).default(0.15),
  headGap_m: finite.min(0.1, 'A site may ask for more than 0.1 m, never for less.').max(2).default(0.1),
  /** So much of the room to an edge may slope, braking and turning take. */
  stabilityShare: positive.max(0.5, 'At most half.').default(0.5),
  /** A floor is taken this much out of level, both ways, for a truck that passed no tilting platform. */
  raisedTilt_pct: finite.min(2, 'At least 2 %.').max(10).default(2),
  /** Forks no higher than this on the way with a load. */
  travelFork_m: positive.max(0.3, 'At most 0.3 m.').default(usualTravelFork_m),
  /** So many times what it has to hold a clamp's friction must be worth. */
  gripShare: finite.min(2, 'At least twice.').max(5).default(2),
  /** Least share of the whole weight on the steered axle, by no standard. */
  steerLeast: z
    .strictObject({
      empty: finite.min(0.2, 'At least 20 %.').max(0.5).default(0.2),
      laden: finite.min(0.15, 'At least 15 %.').max(0.5).default(0.15),
    })
    .prefault({}),
  /** What tyres hold on each surface. */
  friction: z
    .strictObject({
      dry: positive.max(0.5, 'At most 0.5.').default(0.5),
      wet: positive.max(0.35, 'At most 0.35.').default(0.35),
      'wet-steel': positive.max(0.2, 'At most 0.2.').default(0.2),
      ice: positive.max(0.08, 'At most 0.08.').default(0.08),
    })
    .prefault({}),
})

/** How a site wants things read and judged. Each choice has a stated default. */
export const sitePolicy = z.strictObject({
  readingRule: z.enum(['worse-row', 'linear']).default('worse-row'),
  legLoads: z.enum(['upper', 'elastic']).default('upper'),
  /** From this share of a limit a finding says near. */
  near_share: positive.max(0.95, 'A site may lower it, never raise it over 95 %.').default(usualNear_share),
  /** The hook load is taken this much heavier for legs and ground, for the jerk of lifting. */
  dynamicFactor: finite.min(1).max(2).default(1.1),
  /** Room that boom, load and tail keep from whatever stands there. */
  thingGap_m: finite.min(0.3, 'A site may ask for more than 0.3 m, never for less.').max(5).default(0.3),
  /** How far a load may swing that is started and stopped quietly. */
  quietSwing_deg: finite.min(1, 'At least 1°.').max(15).default(2),
  /** A machine whose thorough examination is overdue is not taken, or it is only said. */
  overdueExamination: z.enum(['bar', 'tell']).default('bar'),
  /** Somebody who has a machine already takes another, or it is refused. */
  severalMachines: z.enum(['tell', 'refuse']).default('tell'),
  /** Wheels at set-up, on legs: as the machine's own book has it, or as the site wants all of them. */
  wheelsAtSetUp: z.enum(['book', 'touching', 'clear']).default('book'),
  /** A load like the last one is tried a hand's width up where it is over four fifths of the rating, or each is. */
  trialOfLike: z.enum(['each', 'over-four-fifths']).default('over-four-fifths'),
  /** A truck's battery. */
  charging: z.enum(['every-shift-end', 'when-low']).default('when-low'),
  /** An empty truck on a ramp; a loaded one has its load uphill, always. */
  emptyOnRamp: z.enum(['forks-downhill', 'as-signed']).default('forks-downhill'),
  /** A long boom that is left. */
  boomLeft: z.enum(['always-down', 'down-over-figure']).default('down-over-figure'),
  /** A truck that is left for a while; its forks are down and its brake is on, always. */
  leftBriefly: z.enum(['key-out', 'key-in-near']).default('key-out'),
  practice: practicePolicy.prefault({}),
  trucks: truckPolicy.prefault({}),
})
export type Policy = z.infer<typeof sitePolicy>

/** Corners of all features of a place. */
const most_corners = 5000
/** Points of all its overhead lines. */
const most_masts = 300

/** What of its kind a feature does not say. */
function lackedBy({ kind, geometry, width_m, height_m, grade_pct, axis }: Feature): [keyof Feature, string][] {
  const line = geometry.type === 'LineString'
  if (kind === 'aisle')
    return [
      ...(line ? [] : [['geometry', 'Draw the middle of an aisle as a line.'] as [keyof Feature, string]]),
      ...(width_m === undefined ? [['width_m', 'Say how wide this aisle is.'] as [keyof Feature, string]] : []),
    ]
  if (kind === 'door')
    return [
      ...(line ? [] : [['geometry', 'Draw a door as a line across its opening.'] as [keyof Feature, string]]),
      ...(height_m === undefined ? [['height_m', 'Say how high this door is.'] as [keyof Feature, string]] : []),
    ]
  if (kind === 'ramp' && (grade_pct === undefined || axis === undefined))
    return [['axis', 'Say how steep this ramp is, and from where to where it rises.']]
  return kind === 'ceiling' && height_m === undefined ? [['height_m', 'Say how high this ceiling is.']] : []
}

/** Where machines are set up at a place: their slew centre, and where the nose points, anticlockwise from the place's x. */
export const position = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  x_m: finite,
  y_m: finite,
  heading_deg: finite,
  /** Made for one kind of support, and nothing else is set up on it. A beam: from the support away from its overhang. */
  madeFor: z.enum(['base', 'towers', 'frame', 'runway']).optional(),
})

/** A place where machines work, in its own metres. */
export const placeDefinition = z
  .strictObject({
    format: z.literal('geolabe.place/1'),
    id: nameId,
    name: z.string().min(1),
    note: z.string(),
    ground: z.array(groundKind).min(1).max(100),
    /** What lies where no feature says otherwise. */
    defaultGround: z.string(),
    features: z.array(feature).max(500),
    hazards: z.array(z.strictObject({ id: z.string().min(1), label: z.string().min(1), control: z.string().min(1) })),
    positions: z.array(position).min(1).max(200),
    mats: z.array(matKind).max(100),
    /** Loads that wait here, as far as they are known. */
    loads: z.array(placeLoad).max(500),
    policy: sitePolicy,
  })
  .superRefine((p, ctx) => {
    const known = new Set(p.ground.map((k) => k.id))
    if (p.features.reduce((n, f) => n + f.geometry.points.length, 0) > most_corners) {
      ctx.addIssue({ code: 'custom', path: ['features'], message: `At most ${most_corners} corners in all; draw it with fewer.` })
    }
    const wires = p.features.filter((f) => f.kind === 'overhead')
    if (wires.reduce((n, f) => n + f.geometry.points.length, 0) > most_masts) {
      ctx.addIssue({
        code: 'custom',
        path: ['features'],
        message: `At most ${most_masts} points on overhead lines; draw them with fewer.`,
      })
    }
    if (!known.has(p.defaultGround))
      ctx.addIssue({ code: 'custom', path: ['defaultGround'], message: 'Not one of this place’s kinds of ground.' })
    p.features.forEach((f, i) => {
      for (const [field, message] of lackedBy(f)) ctx.addIssue({ code: 'custom', path: ['features', i, field], message })
      if (f.kind === 'edge' && f.drop_m === undefined) {
        ctx.addIssue({ code: 'custom', path: ['features', i, 'drop_m'], message: 'Say how deep this edge drops.' })
      }
      if (f.ground !== undefined && !known.has(f.ground)) {
        ctx.addIssue({ code: 'custom', path: ['features', i, 'ground'], message: 'Not one of this place’s kinds of ground.' })
      }
    })
  })
export type Place = z.infer<typeof placeDefinition>
