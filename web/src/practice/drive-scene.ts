import {
  alongWay,
  drivenOn,
  footprint,
  leastRoom_share,
  overallLength,
  type Point,
  type Polygon,
  picked_m,
  pointOnWay,
  type TruckDrive,
  type TruckPose,
} from '@geolabe/core'
import { dot, ground, inked, line, practiceWord, type Sheet, shape, someone, type View } from './scene'

/** So much of the ground is seen round the truck: so many of its own lengths, and metres. */
const seen = { lengths: 1.9, metres: 7 } as const
const step_m = 0.4

/** One more shape of the path under way. */
function outline({ ctx }: Sheet, v: View, points: readonly Point[]) {
  for (const [i, p] of points.entries()) {
    const at = v.px(p.x_m, p.y_m)
    if (i === 0) ctx.moveTo(...at)
    else ctx.lineTo(...at)
  }
}

function trace(sheet: Sheet, v: View, points: readonly Point[]) {
  sheet.ctx.beginPath()
  outline(sheet, v, points)
}

function filled(sheet: Sheet, v: View, points: readonly Point[], fill: string | null, stroke: string | null, wide = 1) {
  trace(sheet, v, points)
  sheet.ctx.closePath()
  inked(sheet, fill, stroke, wide)
}

/** What is driven over until it stands, the wheel held as it is: a carpet ahead of it. */
function carpet(sheet: Sheet, v: View, d: TruckDrive) {
  const { motion, truck } = d
  if (Math.abs(motion.speed_mps) < 0.05) return
  const { ctx, paint } = sheet
  const long_m = Math.min(30, d.stopping_m() ?? 30)
  const going = { ...motion.going, speed_mps: Math.sign(motion.speed_mps) }
  let at: TruckPose = motion.pose
  ctx.beginPath()
  for (let run = step_m; run <= long_m + step_m; run += step_m) {
    const s = Math.min(step_m, long_m - run + step_m)
    at = drivenOn(at, truck.chassis.wheelbase_m, going, going, s)
    for (const shape of footprint(truck, { pose: at, shift_m: motion.shift_m })) outline(sheet, v, shape)
  }
  ctx.globalAlpha = 0.35
  ctx.fillStyle = paint.accent
  ctx.fill()
  ctx.globalAlpha = 1
}

function rampOf(sheet: Sheet, v: View, d: TruckDrive) {
  const { ramp } = d.course
  if (!ramp) return
  const { ctx, paint } = sheet
  const [x0, x1, y0, y1] = ramp.box
  const corners = [
    { x_m: x0, y_m: y0 },
    { x_m: x1, y_m: y0 },
    { x_m: x1, y_m: y1 },
    { x_m: x0, y_m: y1 },
  ]
  ctx.globalAlpha = 0.5
  filled(sheet, v, corners, paint.line, null)
  ctx.globalAlpha = 1
  filled(sheet, v, corners, null, paint.edge, 2)
  // Arrows point uphill.
  const [ux, uy] = [Math.cos(ramp.slope.towards_rad), Math.sin(ramp.slope.towards_rad)]
  for (const k of [0.25, 0.5, 0.75]) {
    const [x, y] = [x0 + (x1 - x0) * 0.5 + (k - 0.5) * Math.abs(ux) * (x1 - x0), y0 + (y1 - y0) * (Math.abs(uy) > 0.5 ? k : 0.5)]
    const tip = v.px(x + 0.5 * ux, y + 0.5 * uy)
    line(sheet, v.px(x - 0.5 * ux, y - 0.5 * uy), tip, paint.quiet, 3)
    line(sheet, v.px(x + 0.2 * ux - 0.25 * uy, y + 0.2 * uy + 0.25 * ux), tip, paint.quiet, 3)
    line(sheet, v.px(x + 0.2 * ux + 0.25 * uy, y + 0.2 * uy - 0.25 * ux), tip, paint.quiet, 3)
  }
}

/** A door of strips that nobody sees through: one beside the other across the lane. */
function doorOf(sheet: Sheet, v: View, d: TruckDrive) {
  const { door } = d.course
  if (!door) return
  const { ctx, paint } = sheet
  const [a, b] = door
  const strips = 9
  const at = (k: number): [number, number] => v.px(a.x_m + ((b.x_m - a.x_m) * k) / strips, a.y_m + ((b.y_m - a.y_m) * k) / strips)
  line(sheet, at(0), at(strips), paint.line, 12)
  ctx.globalAlpha = 0.9
  for (let k = 0; k < strips; k++) line(sheet, at(k + 0.12), at(k + 0.88), k % 2 === 0 ? paint.water : paint.edge, 8)
  ctx.globalAlpha = 1
}

/** Where things are picked: a mark to stand at, a shelf beside it; what is picked is filled no more. */
function picksOf(sheet: Sheet, v: View, d: TruckDrive) {
  const { ctx, paint } = sheet
  const half_m = (d.course.way[1]?.x_m ?? 0) - d.course.corner_m
  for (const [i, { at, at_m, side }] of d.course.picks.entries()) {
    const before = pointOnWay(d.course.way, at_m - 0.5)
    const [ux, uy] = [(at.x_m - before.x_m) / 0.5, (at.y_m - before.y_m) / 0.5]
    const [sx, sy] = side === 'left' ? [-uy, ux] : [uy, -ux]
    const done = i < d.picked
    const shelf = (along: number, off: number) => ({ x_m: at.x_m + along * ux + off * sx, y_m: at.y_m + along * uy + off * sy })
    const [from, to] = [half_m - 0.7, half_m]
    filled(
      sheet,
      v,
      [shelf(-0.6, from), shelf(0.6, from), shelf(0.6, to), shelf(-0.6, to)],
      done ? paint.sheet : paint.water,
      paint.ink,
    )
    const middle = v.px(at.x_m, at.y_m)
    dot(sheet, middle, picked_m.along * v.scale, done ? paint.sheet : paint.accent, paint.ink, done ? 1 : 3)
    const label = shelf(0, half_m - 0.35)
    ctx.fillStyle = paint.ink
    ctx.font = '700 16px "Atkinson Hyperlegible Next Variable", sans-serif'
    ctx.textAlign = 'center'
    const [x, y] = v.px(label.x_m, label.y_m)
    ctx.fillText(`${i + 1}`, x, y + 6)
  }
}

/** The machine as it is drawn everywhere, where it stands now, its load on its forks. */
function truckOn(sheet: Sheet, v: View, d: TruckDrive, plan: readonly Polygon[]) {
  const { paint } = sheet
  const { pose } = d.motion
  const [c, s] = [Math.cos(pose.heading_rad), Math.sin(pose.heading_rad)]
  shape(sheet, plan, (_, x, y) => v.px(pose.x_m + x * c - y * s, pose.y_m + x * s + y * c))
  const load = footprint(d.truck, d.motion).at(-1)
  if (load) filled(sheet, v, load, paint.inside, paint.ink, 2)
  // The rear wheels as they are steered.
  const { wheelbase_m } = d.truck.chassis
  const a = pose.heading_rad + d.motion.steer_rad
  const [rx, ry] = [pose.x_m - wheelbase_m * c, pose.y_m - wheelbase_m * s]
  const half = 0.22 * Math.sqrt(wheelbase_m)
  line(
    sheet,
    v.px(rx - half * Math.cos(a), ry - half * Math.sin(a)),
    v.px(rx + half * Math.cos(a), ry + half * Math.sin(a)),
    paint.ink,
    5,
  )
}

/** From above, the truck and what comes next of its way in the middle: walls, ramp, people on foot, where the load goes, and what is driven over until it stands. */
export function drawDrive(sheet: Sheet, d: TruckDrive, plan: readonly Polygon[]) {
  ground(sheet)
  const { width, height, ctx, paint } = sheet
  const across_m = seen.lengths * overallLength(d.truck) + seen.metres
  const scale = Math.min(width, height) / across_m
  const { pose } = d.motion
  const next = pointOnWay(d.course.way, alongWay(d.course.way, pose) + across_m / 3)
  const [cx, cy] = [(pose.x_m + next.x_m) / 2, (pose.y_m + next.y_m) / 2]
  const v: View = { scale, px: (x, y) => [width / 2 - (y - cy) * scale, height / 2 - (x - cx) * scale] }
  rampOf(sheet, v, d)
  ctx.setLineDash([10, 10])
  trace(sheet, v, d.course.way)
  ctx.strokeStyle = paint.edge
  ctx.lineWidth = 2
  ctx.stroke()
  ctx.setLineDash([])
  carpet(sheet, v, d)
  const { bay } = d.course
  dot(sheet, v.px(bay.x_m, bay.y_m), bay.ring_m * scale, paint.accent, paint.ink, 3)
  picksOf(sheet, v, d)
  for (const w of d.course.walls) filled(sheet, v, w.points, paint.edge, paint.ink)
  truckOn(sheet, v, d, plan)
  doorOf(sheet, v, d)
  for (const w of d.walkers) someone(sheet, v.px(w.at.x_m, w.at.y_m), scale)
  practiceWord(sheet)
}

/** The triangle it stands on, a third of the room marked, and where its weight presses now. */
export function drawTriangle(sheet: Sheet, d: TruckDrive) {
  ground(sheet)
  const { width, height, paint } = sheet
  const { chassis } = d.truck
  const [half, long] = [chassis.frontHalfTrack_m, chassis.wheelbase_m]
  const scale = Math.min((height - 70) / long, (width - 50) / (2.6 * half))
  const px = (x: number, y: number): [number, number] => [width / 2 - y * scale, 50 - x * scale]
  const corners = [
    { x_m: 0, y_m: half },
    { x_m: 0, y_m: -half },
    { x_m: -long, y_m: 0 },
  ]
  const v: View = { scale, px }
  filled(sheet, v, corners, paint.paper, paint.ink, 3)
  // A third of what the weight has to each edge at rest.
  const { balance: b, presses } = d.motion
  const rest = { x_m: b.x_m, y_m: b.y_m }
  filled(
    sheet,
    v,
    corners.map((c) => ({
      x_m: rest.x_m + (1 - leastRoom_share) * (c.x_m - rest.x_m),
      y_m: rest.y_m + (1 - leastRoom_share) * (c.y_m - rest.y_m),
    })),
    null,
    paint.edge,
    2,
  )
  for (const c of corners.slice(0, 2)) dot(sheet, px(c.x_m, c.y_m), 9, paint.edge, paint.ink)
  dot(sheet, px(-long, 0), 6, paint.edge, paint.ink)
  const out = Math.min(d.motion.room.front, d.motion.room.left, d.motion.room.right) <= 0
  dot(sheet, px(presses.x_m, presses.y_m), 10, out ? paint.outside : paint.accent, paint.ink, 3)
}
