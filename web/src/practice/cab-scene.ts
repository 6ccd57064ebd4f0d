import { type Drill, type EyePart, fromPeople_m, placeOfRing, type Rig, type Sample } from '@geolabe/core'
import { dot, ground, inked, isSeen, line, type Sheet, tall_m } from './scene'

type Place = readonly [x: number, y: number, z: number]

const radians = Math.PI / 180
/** Nearer than this to the eye nothing is drawn, metres. */
const near_m = 0.4
/** Lines on the deck, so far apart, metres. */
const grid_m = 2

const minus = (a: Place, b: Place): Place => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const times = (a: Place, b: Place) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const cross = (a: Place, b: Place): Place => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
const unit = (a: Place): Place => {
  const long = Math.hypot(...a) || 1
  return [a[0] / long, a[1] / long, a[2] / long]
}

/** Where the operator's eye is: in a cab that turns or stays, or beside what the load goes over, remote in hand. */
function eyeAt(eye: EyePart, rig: Rig, slew_deg: number): Place {
  if (eye.on !== 'foot') {
    const a = (eye.on === 'upper' ? slew_deg : 0) * radians
    const [c, n] = [Math.cos(a), Math.sin(a)]
    return [eye.x_m * c - eye.y_m * n, eye.x_m * n + eye.y_m * c, eye.z_m]
  }
  // Out beyond where it began, and well to the side of it.
  const out_m = rig.radii.most_m + 3
  const a = (rig.slew_deg + 35) * radians
  return [out_m * Math.cos(a), out_m * Math.sin(a), rig.deck_m + eye.z_m]
}

/** Whether an eye is over the deck; from below nobody sees a load set down on it. */
export const isOverDeck = (eye: EyePart, rig: Rig): boolean => eye.on === 'foot' || eye.z_m > rig.deck_m + 1

/** A picture as an eye has it that looks along the rope: the tip above, the deck below. */
class Look {
  private readonly forward: Place
  private readonly right: Place
  private readonly up: Place
  private readonly focal: number
  constructor(
    private readonly from: Place,
    { width, height }: Sheet,
    tip: Place,
    deck_m: number,
  ) {
    const middle: Place = [tip[0], tip[1], (tip[2] + deck_m) / 2]
    this.forward = unit(minus(middle, from))
    this.right = unit(cross(this.forward, [0, 0, 1]))
    this.up = cross(this.right, this.forward)
    this.middle = [width / 2, height / 2]
    // From head to deck a good part of the picture is filled, never through a keyhole nor a fisheye.
    const half = Math.max(
      ...[tip[2], deck_m].map((z) => Math.acos(Math.min(1, times(this.forward, unit(minus([tip[0], tip[1], z], from)))))),
    )
    this.focal = (0.4 * height) / Math.tan(Math.max(12, Math.min(48, half / radians)) * radians)
  }
  private readonly middle: readonly [number, number]

  /** How far ahead a place is. */
  ahead = (p: Place) => times(minus(p, this.from), this.forward)
  /** So many pixels a metre there. */
  scale = (p: Place) => this.focal / Math.max(near_m, this.ahead(p))
  px(p: Place): [number, number] {
    const d = minus(p, this.from)
    const k = this.focal / Math.max(near_m, times(d, this.forward))
    return [this.middle[0] + times(d, this.right) * k, this.middle[1] - times(d, this.up) * k]
  }
  /** What of a straight line is before the eye; null: none. */
  before(a: Place, b: Place): [Place, Place] | null {
    const [da, db] = [this.ahead(a), this.ahead(b)]
    if (da < near_m && db < near_m) return null
    const at = (share: number): Place => [
      a[0] + share * (b[0] - a[0]),
      a[1] + share * (b[1] - a[1]),
      a[2] + share * (b[2] - a[2]),
    ]
    const share = (near_m - da) / (db - da)
    return [da < near_m ? at(share) : a, db < near_m ? at(share) : b]
  }
}

/** At most so wide, pixels: what passes right before the eye is no wall. */
const widest_px = 44

/** Something long, as wide at each of its ends as it is near there. */
function lineIn(sheet: Sheet, look: Look, a: Place, b: Place, colour: string, wide_m: number, least = 1.5) {
  const seen = look.before(a, b)
  if (!seen) return
  const [from, to] = [look.px(seen[0]), look.px(seen[1])]
  const wide = (p: Place) => Math.min(widest_px, Math.max(least, wide_m * look.scale(p)))
  const [w0, w1] = [wide(seen[0]) / 2, wide(seen[1]) / 2]
  if (w0 + w1 <= 3) {
    line(sheet, from, to, colour, w0 + w1)
    return
  }
  const long = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1
  const [x, y] = [-(to[1] - from[1]) / long, (to[0] - from[0]) / long]
  const { ctx } = sheet
  ctx.fillStyle = colour
  ctx.beginPath()
  ctx.moveTo(from[0] + x * w0, from[1] + y * w0)
  ctx.lineTo(to[0] + x * w1, to[1] + y * w1)
  ctx.lineTo(to[0] - x * w1, to[1] - y * w1)
  ctx.lineTo(from[0] - x * w0, from[1] - y * w0)
  ctx.fill()
}

/** Something flat between its corners; what reaches behind the eye is left out. */
function flat(sheet: Sheet, look: Look, corners: readonly Place[], fill: string | null, stroke: string | null, wide = 1.5) {
  if (corners.some((p) => look.ahead(p) < near_m)) return
  sheet.ctx.beginPath()
  for (const p of corners) sheet.ctx.lineTo(...look.px(p))
  sheet.ctx.closePath()
  inked(sheet, fill, stroke, wide)
}

/** The edge of something round on the deck. */
const roundAt = ([x, y, z]: Place, radius_m: number): Place[] =>
  Array.from({ length: 32 }, (_, i) => {
    const a = (i / 16) * Math.PI
    return [x + radius_m * Math.cos(a), y + radius_m * Math.sin(a), z]
  })

function deckOf(sheet: Sheet, look: Look, rig: Rig) {
  const { ctx, paint } = sheet
  const far_m = grid_m * Math.ceil((rig.radii.most_m + 6) / grid_m)
  ctx.globalAlpha = 0.8
  for (let x = -far_m; x <= far_m; x += grid_m) {
    lineIn(sheet, look, [x, -far_m, rig.deck_m], [x, far_m, rig.deck_m], paint.line, 0, 1)
    lineIn(sheet, look, [-far_m, x, rig.deck_m], [far_m, x, rig.deck_m], paint.line, 0, 1)
  }
  ctx.globalAlpha = 1
}

/** Rings, posts and wall on the deck, and whoever crosses it. */
function onDeck(sheet: Sheet, look: Look, d: Drill, s: Sample) {
  const { rig, course } = d
  const { ctx, paint } = sheet
  const on = ([x, y]: readonly [number, number], up_m = 0): Place => [x, y, rig.deck_m + up_m]
  for (const [i, ring] of course.legs.entries()) {
    const now = i === d.landed.length
    const at = on(placeOfRing(ring))
    if (i < d.landed.length) continue
    flat(sheet, look, roundAt(at, ring.ring_m), now ? paint.accent : null, now ? paint.ink : paint.edge, now ? 3 : 1.5)
    if (look.ahead(at) < near_m) continue
    ctx.fillStyle = now ? paint.onAccent : paint.quiet
    ctx.font = '700 18px "Atkinson Hyperlegible Next Variable", sans-serif'
    ctx.textAlign = 'center'
    const [x, y] = look.px(at)
    ctx.fillText(String(i + 1), x, y + 6)
  }
  if (course.blind) {
    const { at, radius_m, height_m } = course.blind
    flat(sheet, look, roundAt(on(at), radius_m), paint.line, paint.quiet)
    flat(sheet, look, roundAt(on(at, height_m), radius_m), null, paint.quiet)
  }
  for (const w of course.obstacles.walls)
    flat(sheet, look, [on(w.from), on(w.to), on(w.to, w.height_m), on(w.from, w.height_m)], paint.outside, paint.ink)
  for (const p of course.obstacles.posts) lineIn(sheet, look, on(p.at), on(p.at, p.height_m), paint.outside, 2 * p.radius_m, 3)
  if (!s.onFoot) return
  flat(sheet, look, roundAt(on(s.onFoot.at), fromPeople_m), null, paint.outside, s.onFoot.walks ? 5 : 2)
  lineIn(sheet, look, on(s.onFoot.at), on(s.onFoot.at, tall_m), paint.outside, 0.5, 4)
  const head = on(s.onFoot.at, tall_m)
  if (look.ahead(head) > near_m) dot(sheet, look.px(head), Math.max(4, 0.15 * look.scale(head)), paint.sheet, paint.ink)
}

/** As the operator has it: along the rope from a cab, or from beside, remote in hand; the load's shadow on the deck under it. */
export function drawFromEye(sheet: Sheet, d: Drill, s: Sample, eye: EyePart) {
  const { rig } = d
  const { paint } = sheet
  ground(sheet)
  const look = new Look(eyeAt(eye, rig, s.slew_deg), sheet, s.tip, rig.deck_m)
  deckOf(sheet, look, rig)
  onDeck(sheet, look, d, s)
  const c = Math.cos(s.slew_deg * radians)
  const n = Math.sin(s.slew_deg * radians)
  const out = (out_m: number, up_m: number): Place => [out_m * c, out_m * n, up_m]
  const foot = out(-rig.foot.back_m, rig.foot.height_m)
  const end = rig.under === 'boom' ? s.tip : out(Math.max(rig.radii.most_m, s.radius_m) + 3, rig.foot.height_m)
  const joints = s.elbow ? [foot, out(...s.elbow), end] : [foot, end]
  const seen = isSeen(d, s)
  // A shadow straight below tells over what it hangs.
  if (seen) flat(sheet, look, roundAt([s.load[0], s.load[1], rig.deck_m], rig.load.radius_m), paint.edge, null)
  for (const [i, joint] of joints.entries()) {
    const last = joints[i - 1]
    if (last) lineIn(sheet, look, last, joint, paint.ink, 0.4, 3)
  }
  if (seen) lineIn(sheet, look, s.tip, s.load, paint.outside, 0.03, 2)
  if (seen && look.ahead(s.load) > near_m) {
    const k = look.scale(s.load)
    const [x, y] = look.px(s.load)
    const [wide, high] = [Math.max(5, rig.load.radius_m * k), Math.max(5, rig.load.half_m * k)]
    const { ctx } = sheet
    ctx.fillStyle = s.standing ? paint.edge : paint.inside
    ctx.fillRect(x - wide, y - high, 2 * wide, 2 * high)
    ctx.strokeStyle = paint.ink
    ctx.lineWidth = 2
    ctx.strokeRect(x - wide, y - high, 2 * wide, 2 * high)
  }
  if (look.ahead(s.tip) > near_m) dot(sheet, look.px(s.tip), 5, paint.sheet, paint.ink)
}
