import {
  type Course,
  type Drill,
  fromPeople_m,
  isOutOfSight,
  type Polygon,
  placeOfRing,
  type Rig,
  type Ring,
  restingAt,
  type Sample,
} from '@geolabe/core'
import { t } from '../language/t'

/** Colours of the day or the night, as the page has them. */
export interface Paints {
  paper: string
  sheet: string
  line: string
  edge: string
  ink: string
  quiet: string
  accent: string
  onAccent: string
  water: string
  inside: string
  outside: string
}

export function paintsOf(element: Element): Paints {
  const style = getComputedStyle(element)
  const of = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return {
    paper: of('paper'),
    sheet: of('sheet'),
    line: of('line'),
    edge: of('edge'),
    ink: of('ink'),
    quiet: of('quiet'),
    accent: of('accent'),
    onAccent: of('on-accent'),
    water: of('water'),
    inside: of('inside'),
    outside: of('outside'),
  }
}

export interface Sheet {
  ctx: CanvasRenderingContext2D
  width: number
  height: number
  paint: Paints
}

const radians = Math.PI / 180
/** The last seconds of the load's way stay in sight, ticks. */
const trail_ticks = 8 * 120
const trailEvery = 6

/** Practice stands on ground of its own: slanted strokes and the word, so that nobody takes it for the machine at work. */
export function ground(sheet: Sheet) {
  const { ctx, width, height, paint } = sheet
  ctx.fillStyle = paint.sheet
  ctx.fillRect(0, 0, width, height)
  ctx.strokeStyle = paint.line
  ctx.globalAlpha = 0.45
  ctx.lineWidth = 1
  ctx.beginPath()
  for (let x = -height; x < width; x += 26) {
    ctx.moveTo(x, height)
    ctx.lineTo(x + height, 0)
  }
  ctx.stroke()
  ctx.globalAlpha = 1
  practiceWord(sheet)
}

/** The word itself, once more over what was drawn where that may cover it. */
export function practiceWord({ ctx, paint }: Sheet) {
  ctx.fillStyle = paint.quiet
  ctx.font = '700 17px "Atkinson Hyperlegible Next Variable", sans-serif'
  ctx.textAlign = 'left'
  ctx.fillText(t`Practice`, 12, 26)
}

/** Metres to pixels in a view. */
export interface View {
  px: (x: number, y: number) => [number, number]
  scale: number
}

/** From above, slew nought up the sheet and left on the left, with every ring in it, and the load wherever it is. */
function planView({ width, height }: Sheet, rig: Rig, d: Drill, s: Sample): View {
  const margin = 2 + 0.1 * rig.radii.most_m
  const { x, y } = rig.body ?? { x: [0, 0], y: [0, 0] }
  const [xs, ys] = [
    [x[0] - 1, x[1] + 1],
    [y[0] - 1, y[1] + 1],
  ]
  for (const r of [
    ...d.course.legs,
    {
      slew_deg: rig.slew_deg,
      radius_m: (rig.radii.least_m + rig.radii.most_m) / 2,
      ring_m: 2,
    },
  ]) {
    const [x, y] = placeOfRing(r)
    xs.push(x - r.ring_m - margin / 2, x + r.ring_m + margin / 2)
    ys.push(y - r.ring_m - margin / 2, y + r.ring_m + margin / 2)
  }
  const about_m = rig.level ? rig.level.span_m : 1
  for (const [x, y] of [s.tip, s.load]) {
    xs.push(x - about_m, x + about_m)
    ys.push(y - about_m, y + about_m)
  }
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const scale = Math.min((height - 20) / (x1 - x0), (width - 20) / (y1 - y0))
  const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2]
  return { scale, px: (x, y) => [width / 2 - (y - cy) * scale, height / 2 - (x - cx) * scale] }
}

/**
 * A machine as it is drawn everywhere, without what stands above it.
 *
 * @param at where a point of a part is on the sheet
 */
export function shape(
  { ctx, paint }: Sheet,
  outline: readonly Polygon[],
  at: (part: Polygon, x: number, y: number) => [number, number],
) {
  for (const part of outline) {
    if (part.raised) continue
    ctx.beginPath()
    for (const [i, [x, y]] of part.points.entries()) {
      if (i === 0) ctx.moveTo(...at(part, x, y))
      else ctx.lineTo(...at(part, x, y))
    }
    ctx.closePath()
    ctx.fillStyle = part.shade === 'dark' || part.shade === 'wheel' ? paint.edge : paint.water
    ctx.fill()
    ctx.strokeStyle = paint.ink
    ctx.lineWidth = 1
    ctx.stroke()
  }
}

/** What has been traced, filled and edged as said. */
export function inked({ ctx }: Sheet, fill: string | null, stroke: string | null, wide = 1) {
  if (fill) {
    ctx.fillStyle = fill
    ctx.fill()
  }
  if (stroke) {
    ctx.strokeStyle = stroke
    ctx.lineWidth = wide
    ctx.stroke()
  }
}

export function line({ ctx }: Sheet, from: [number, number], to: [number, number], colour: string, wide: number) {
  ctx.strokeStyle = colour
  ctx.lineWidth = wide
  ctx.lineCap = 'round'
  ctx.beginPath()
  ctx.moveTo(...from)
  ctx.lineTo(...to)
  ctx.stroke()
}

export function dot(sheet: Sheet, at: [number, number], radius: number, fill: string | null, stroke: string, wide = 2) {
  sheet.ctx.beginPath()
  sheet.ctx.arc(...at, Math.max(1, radius), 0, 2 * Math.PI)
  inked(sheet, fill, stroke, wide)
}

/** Where the load went lately, as far as it is seen, against the ground. */
function trail(sheet: Sheet, v: View, samples: readonly Sample[], seen: (s: Sample) => boolean) {
  const { ctx, paint } = sheet
  ctx.strokeStyle = paint.quiet
  ctx.lineWidth = 1.5
  ctx.beginPath()
  let on = false
  for (let k = Math.max(0, samples.length - trail_ticks); k < samples.length; k += trailEvery) {
    const s = samples[k]
    if (!s) continue
    const shown = seen(s)
    if (shown && on) ctx.lineTo(...v.px(s.load[0], s.load[1]))
    else if (shown) ctx.moveTo(...v.px(s.load[0], s.load[1]))
    on = shown
  }
  ctx.stroke()
}

/** Whether whoever drives sees the load. */
export const isSeen = ({ rig, course }: Drill, s: Sample): boolean => !isOutOfSight(course.blind, s.load, rig)

/** Where nobody sees in from the controls, from above. */
function outOfSight(sheet: Sheet, v: View, { course: { blind } }: Drill) {
  if (!blind) return
  const { ctx, paint } = sheet
  const [x, y] = v.px(...blind.at)
  const wide = blind.radius_m * v.scale
  ctx.globalAlpha = 0.5
  dot(sheet, [x, y], wide, paint.line, paint.line, 2)
  ctx.globalAlpha = 1
  ctx.setLineDash([10, 6])
  dot(sheet, [x, y], wide, null, paint.quiet, 2)
  ctx.setLineDash([])
  ctx.fillStyle = paint.ink
  ctx.font = '700 16px "Atkinson Hyperlegible Next Variable", sans-serif'
  ctx.textAlign = 'center'
  ctx.fillText(t`Out of sight`, x, y - wide - 6)
  practiceWord(sheet)
}

/** Posts and walls from above. */
function standing(sheet: Sheet, v: View, { course: { obstacles } }: Drill) {
  const { paint } = sheet
  for (const w of obstacles.walls) line(sheet, v.px(...w.from), v.px(...w.to), paint.outside, Math.max(5, 0.2 * v.scale))
  for (const p of obstacles.posts) dot(sheet, v.px(...p.at), Math.max(5, p.radius_m * v.scale), paint.outside, paint.ink)
}

/** Somebody on foot from above: shoulders and a helmet. */
export function someone(sheet: Sheet, at: [number, number], scale: number) {
  dot(sheet, at, Math.max(7, 0.3 * scale), sheet.paint.outside, sheet.paint.ink)
  dot(sheet, at, Math.max(3, 0.13 * scale), sheet.paint.sheet, sheet.paint.ink)
}

/** Who crosses, the line that they walk, and how near the load's edge may come to them. */
function crossing(sheet: Sheet, v: View, d: Drill, s: Sample) {
  const { ctx, paint } = sheet
  const who = d.onFoot
  if (!who || !s.onFoot) return
  ctx.setLineDash([8, 7])
  line(sheet, v.px(...who.from), v.px(...who.to), paint.ink, 2)
  const at = v.px(...s.onFoot.at)
  // A broken ring about who stands, a whole one about who walks.
  if (s.onFoot.walks) ctx.setLineDash([])
  dot(sheet, at, fromPeople_m * v.scale, null, paint.outside, s.onFoot.walks ? 5 : 3)
  ctx.setLineDash([])
  someone(sheet, at, v.scale)
}

/** How tall people are drawn. */
export const tall_m = 1.8

/** So near beside the boom a post or a wall is seen from the side. */
const beside_m = 1.2

/** What stands on the deck near the boom, from the side. */
function standingBeside(sheet: Sheet, px: (x: number, z: number) => [number, number], d: Drill, s: Sample) {
  const { rig, course } = d
  const [c, n] = [Math.cos(s.slew_deg * radians), Math.sin(s.slew_deg * radians)]
  const upright = ([x, y]: readonly [number, number], height_m: number, wide: number): [number, number] | null => {
    const [out_m, aside_m] = [x * c + y * n, y * c - x * n]
    if (out_m < 0 || Math.abs(aside_m) > beside_m) return null
    const top = px(out_m, rig.deck_m + height_m)
    line(sheet, px(out_m, rig.deck_m), top, sheet.paint.outside, wide)
    return top
  }
  for (const p of course.obstacles.posts) upright(p.at, p.height_m, 5)
  for (const w of course.obstacles.walls) upright([(w.from[0] + w.to[0]) / 2, (w.from[1] + w.to[1]) / 2], w.height_m, 9)
  const head = s.onFoot && upright(s.onFoot.at, tall_m, 7)
  if (head) dot(sheet, head, 5, sheet.paint.sheet, sheet.paint.ink)
}

/** Which way the wind goes, from above. */
function windFromAbove({ ctx, paint, height }: Sheet, wind: Course['wind']) {
  if (!wind) return
  const a = wind.towards_deg * radians
  // Ahead is up the sheet, left is left.
  const [x, y] = [-Math.sin(a), -Math.cos(a)]
  const [cx, cy] = [34, height - 50]
  ctx.strokeStyle = paint.ink
  ctx.lineWidth = 3
  ctx.beginPath()
  ctx.moveTo(cx - 18 * x, cy - 18 * y)
  ctx.lineTo(cx + 18 * x, cy + 18 * y)
  for (const side of [1, -1]) {
    ctx.moveTo(cx + 18 * x, cy + 18 * y)
    ctx.lineTo(cx + 8 * x - side * 8 * y, cy + 8 * y + side * 8 * x)
  }
  ctx.stroke()
  ctx.fillStyle = paint.ink
  ctx.font = '700 16px "Atkinson Hyperlegible Next Variable", sans-serif'
  ctx.textAlign = 'left'
  ctx.fillText(t`Wind`, 14, height - 10)
}

/** From stop to stop. */
const alongBeam = ({ axes }: Rig) => axes.find((a) => a.motion === 'trolley') ?? { least: 0, most: 0 }

function beamFromAbove(sheet: Sheet, v: View, rig: Rig) {
  const { least, most } = alongBeam(rig)
  const at = (radius_m: number) => v.px(...placeOfRing({ slew_deg: rig.slew_deg, radius_m, ring_m: 0 }))
  line(sheet, at(least), at(most), sheet.paint.edge, Math.max(4, 0.2 * v.scale))
}

/** In a line rings lie over one another: then the one that is due is drawn alone. */
function isApart(ring: Ring, due: Ring | undefined): boolean {
  if (!due) return true
  const [[x, y], [u, w]] = [placeOfRing(ring), placeOfRing(due)]
  return Math.hypot(x - u, y - w) > ring.ring_m + due.ring_m
}

/**
 * From above: rings, machine, boom, tip, load and what is between the two.
 *
 * @param ghost where the reference has its load at this moment
 * @param driven as whoever drives sees it: a load out of sight is not drawn
 */
export function drawPlan(
  sheet: Sheet,
  d: Drill,
  outline: readonly Polygon[],
  s: Sample,
  ghost: readonly [number, number] | null = null,
  driven = false,
) {
  const { rig } = d
  const seen = (x: Sample) => !driven || isSeen(d, x)
  ground(sheet)
  const v = planView(sheet, rig, d, s)
  const { paint, ctx } = sheet
  outOfSight(sheet, v, d)
  if (rig.under === 'beam') beamFromAbove(sheet, v, rig)
  for (const [i, ring] of d.course.legs.entries()) {
    const at = v.px(...placeOfRing(ring))
    const now = i === d.landed.length
    if (!now && !isApart(ring, d.course.legs[d.landed.length])) continue
    dot(sheet, at, ring.ring_m * v.scale, now ? paint.accent : null, now ? paint.ink : paint.edge, now ? 3 : 1.5)
    ctx.fillStyle = now ? paint.onAccent : paint.quiet
    ctx.font = '700 20px "Atkinson Hyperlegible Next Variable", sans-serif'
    ctx.textAlign = 'center'
    ctx.fillText(String(i + 1), at[0], at[1] + 7)
  }
  standing(sheet, v, d)
  crossing(sheet, v, d, s)
  windFromAbove(sheet, d.course.wind)
  const [c, n] = [Math.cos(s.slew_deg * radians), Math.sin(s.slew_deg * radians)]
  if (rig.under === 'frame') {
    shape(sheet, outline, (_, x, y) => v.px(s.tip[0] + x * c - y * n, s.tip[1] + x * n + y * c))
  } else if (rig.under !== 'beam') {
    shape(sheet, outline, (part, x, y) => (part.slews ? v.px(x * c - y * n, x * n + y * c) : v.px(x, y)))
    const { back_m } = rig.foot
    line(sheet, v.px(-back_m * c, -back_m * n), v.px(s.tip[0], s.tip[1]), paint.ink, Math.max(4, 0.5 * v.scale))
  }
  trail(sheet, v, d.samples, seen)
  if (ghost) {
    ctx.setLineDash([5, 4])
    dot(sheet, v.px(...ghost), rig.load.radius_m * v.scale + 4, null, paint.ink, 2.5)
    ctx.setLineDash([])
  }
  const [tip, load] = [v.px(s.tip[0], s.tip[1]), v.px(s.load[0], s.load[1])]
  if (!seen(s)) {
    dot(sheet, tip, 5, paint.sheet, paint.ink)
    return
  }
  line(sheet, tip, load, paint.outside, 3)
  if (rig.level) {
    const [dx, dy] = [(rig.level.span_m / 2) * c, (rig.level.span_m / 2) * n]
    const [front, rear] = [v.px(s.load[0] + dx, s.load[1] + dy), v.px(s.load[0] - dx, s.load[1] - dy)]
    line(sheet, rear, front, s.standing ? paint.edge : paint.inside, Math.max(4, 0.5 * v.scale))
  }
  dot(sheet, load, rig.load.radius_m * v.scale, s.standing ? paint.edge : paint.inside, paint.ink)
  dot(sheet, tip, 5, paint.sheet, paint.ink)
}

/** What goes beyond the middle of a load on two hoists. */
const beyond_m = ({ level }: Rig) => (level ? level.span_m / 2 : 0)

/** Where its head stands over the nearest ring. */
const highest_m = (rig: Rig) =>
  restingAt(
    rig,
    rig.axes.map((a) => (a.motion === rig.reach.motion ? rig.reach.at(rig.radii.least_m) : a.at)),
  ).height_m

/** From a hoist's chain up to its beam. */
const over_m = 0.6

/** A frame over its load, and the load on its two hoists as it hangs: its front end to the right. */
function carriedByTwo(sheet: Sheet, px: (x: number, z: number) => [number, number], span_m: number, s: Sample, seen: boolean) {
  const { paint } = sheet
  const [half_m, out_m, top_m] = [span_m / 2, s.radius_m + s.beside_m[0], s.tip[2]]
  const ends = ([1, -1] as const).map((way) => ({
    head: px(s.radius_m + way * half_m, top_m),
    hook: px(out_m + way * half_m, s.load[2] + (way * s.apart_m) / 2),
    foot: px(s.radius_m + way * (half_m + 0.6), 0),
    corner: px(s.radius_m + way * (half_m + 0.6), top_m + 0.3),
  }))
  const [front, rear] = ends
  if (!front || !rear) return
  line(sheet, rear.corner, front.corner, paint.ink, 8)
  for (const { head, hook, foot, corner } of ends) {
    line(sheet, corner, foot, paint.edge, 6)
    if (seen) line(sheet, head, hook, paint.outside, 2)
  }
  if (!seen) return
  line(sheet, rear.hook, front.hook, paint.ink, 15)
  line(sheet, rear.hook, front.hook, s.standing ? paint.edge : paint.inside, 11)
}

/** From its side, turning with the boom: how high the load hangs, and how far out of plumb along the boom. */
export function drawSide(sheet: Sheet, d: Drill, s: Sample, driven = false) {
  const { rig } = d
  const seen = !driven || isSeen(d, s)
  ground(sheet)
  const { width, height, ctx, paint } = sheet
  const top_m = Math.max(highest_m(rig), s.tip[2], rig.foot.height_m, s.elbow?.[1] ?? 0) + 2
  const low_m = Math.max(0, rig.deck_m - 4)
  const [far_m, behind_m] = [rig.radii.most_m + 3 + beyond_m(rig), 2 + beyond_m(rig)]
  const scale = Math.min((width - 40) / (far_m + behind_m + 1), (height - 30) / (top_m - low_m))
  const px = (x: number, z: number): [number, number] => [30 + (x + behind_m) * scale, height - 14 - (z - low_m) * scale]
  line(sheet, [0, px(0, rig.deck_m)[1]], [width, px(0, rig.deck_m)[1]], paint.ink, 2)
  standingBeside(sheet, px, d, s)
  const ring = d.course.legs[d.landed.length]
  if (ring) {
    const [a, b] = [px(ring.radius_m - ring.ring_m, rig.deck_m), px(ring.radius_m + ring.ring_m, rig.deck_m)]
    ctx.fillStyle = paint.accent
    ctx.fillRect(a[0], a[1] - 3, b[0] - a[0], 9)
    ctx.strokeStyle = paint.ink
    ctx.lineWidth = 1.5
    ctx.strokeRect(a[0], a[1] - 3, b[0] - a[0], 9)
  }
  const out_m = s.radius_m + s.beside_m[0]
  const [tip, load] = [px(s.radius_m, s.tip[2]), px(out_m, s.load[2])]
  if (rig.level) {
    carriedByTwo(sheet, px, rig.level.span_m, s, seen)
    return
  }
  const foot = px(-rig.foot.back_m, rig.foot.height_m)
  if (rig.under === 'jib') {
    line(sheet, px(0, low_m), px(0, rig.foot.height_m), paint.ink, 6)
    line(sheet, foot, px(far_m, rig.foot.height_m), paint.ink, 6)
  } else if (rig.under === 'beam') {
    const { least, most } = alongBeam(rig)
    line(sheet, px(least, rig.foot.height_m + over_m), px(most, rig.foot.height_m + over_m), paint.ink, 8)
    line(sheet, px(s.radius_m, rig.foot.height_m + over_m), tip, paint.ink, 14)
  } else {
    const elbow = s.elbow ? px(...s.elbow) : foot
    line(sheet, foot, elbow, paint.ink, 8)
    line(sheet, elbow, tip, paint.ink, 6)
    if (s.elbow) dot(sheet, elbow, 4, paint.sheet, paint.ink)
  }
  if (!seen) {
    dot(sheet, tip, 5, paint.sheet, paint.ink)
    return
  }
  line(sheet, tip, load, paint.outside, 2)
  const half = rig.load.half_m * scale
  const wide = Math.max(6, rig.load.radius_m * scale)
  ctx.fillStyle = s.standing ? paint.edge : paint.inside
  ctx.fillRect(load[0] - wide, load[1] - half, 2 * wide, 2 * half)
  ctx.strokeStyle = paint.ink
  ctx.lineWidth = 2
  ctx.strokeRect(load[0] - wide, load[1] - half, 2 * wide, 2 * half)
  dot(sheet, tip, 5, paint.sheet, paint.ink)
}

/** A canvas as sharp as the screen; null where there is nothing to draw on. */
export function sheetOf(canvas: HTMLCanvasElement | null, paint: Paints): Sheet | null {
  const ctx = canvas?.getContext('2d')
  if (!canvas || !ctx) return null
  const { clientWidth: width, clientHeight: height } = canvas
  const fine = globalThis.devicePixelRatio || 1
  if (canvas.width !== Math.round(width * fine) || canvas.height !== Math.round(height * fine)) {
    canvas.width = Math.round(width * fine)
    canvas.height = Math.round(height * fine)
  }
  ctx.setTransform(fine, 0, 0, fine, 0, 0)
  return width > 0 && height > 0 ? { ctx, width, height, paint } : null
}
