import {
  allOff,
  alongWay,
  type DriveRun,
  type DriverActs,
  driveOn,
  driverSwitches,
  driveVersion,
  LeverNotes,
  type Machine,
  type Point,
  type TruckDrive,
} from '../src'

const clamp = (v: number, most = 1) => Math.max(-most, Math.min(most, v))

/** What a driver may do otherwise than a good one. */
export interface Habits {
  /** So many times as fast. */
  speed?: number
  noHorn?: true
  noLook?: true
  noWait?: true
  noTilt?: true
  noCentre?: true
  noBrake?: true
  keyIn?: true
  keyFirst?: true
  noPick?: true
  /** Forks carried so high. */
  forks_m?: number
  /** Forwards, whatever the load and the ramp. */
  forwards?: true
}

/** A way with its corner rounded, on beyond its end, a point every fifth of a metre. */
function rounded([a, b, c]: readonly Point[], round_m: number, beyond_m: number): Point[] {
  if (!a || !b || !c) return []
  const side = Math.sign(c.y_m)
  const out: Point[] = []
  for (let x = a.x_m; x < b.x_m - round_m; x += 0.2) out.push({ x_m: x, y_m: 0 })
  for (let t = 0; t < Math.PI / 2; t += 0.2 / round_m)
    out.push({ x_m: b.x_m - round_m + round_m * Math.sin(t), y_m: side * round_m * (1 - Math.cos(t)) })
  for (let y = round_m; y < Math.abs(c.y_m) + beyond_m; y += 0.2) out.push({ x_m: b.x_m, y_m: side * y })
  return out
}

/** A steady driver: looks, sounds the horn, waits for whoever crosses, slows down for the corner, sets the load down in its place and leaves the truck. */
export class SteadyDriver {
  private readonly path: Point[]
  private readonly back: boolean
  private phase: 'raise' | 'turn' | 'look' | 'go' | 'pick' | 'down' | 'lower' | 'leave' = 'raise'
  private picked = 0
  private since = 0
  private at = 0
  private pedal_mps = 0
  private turned = false

  constructor(
    private readonly d: TruckDrive,
    private readonly habits: Habits = {},
  ) {
    const { course, truck } = d
    this.back =
      !habits.forwards && (course.tall || (course.ramp !== null && course.ramp.slope.towards_rad * (course.way[2]?.y_m ?? 0) < 0))
    const lane_m = 2 * ((course.way[1]?.x_m ?? 0) - course.corner_m)
    // Chassis first is forward, and nothing is held off the ground for it.
    if (truck.driving.platform) this.phase = 'go'
    this.path = rounded(course.way, lane_m / 2, 3 * (truck.load.front_m - truck.body.rear_m))
  }

  /** The pedal moved gradually, a third of a metre a second in a second. */
  private gently(to_mps: number): number {
    this.pedal_mps += clamp(to_mps - this.pedal_mps, 0.33 / 120)
    return this.pedal_mps
  }

  private go(to: SteadyDriver['phase']) {
    this.phase = to
    this.since = this.d.ticks
  }

  acts(): DriverActs {
    const { d, habits } = this
    const m = d.motion
    const still = { travel: 0, steer: 0, forks: 0, tilt: 0, shift: 0, ...allOff, stop: false }
    const waited_s = (d.ticks - this.since) / 120
    if (this.phase === 'raise') {
      const [height, tilt] = [habits.forks_m ?? 0.1, habits.noTilt ? 0 : 4]
      const forks = m.height_m < height - 0.005 ? Math.min(1, (height - m.height_m) * 8 + 0.05) : 0
      const lean = m.tilt_deg < tilt - 0.1 ? 1 : 0
      const shift = habits.noCentre || Math.abs(m.shift_m) < 0.005 ? 0 : clamp(-m.shift_m * 20)
      if (forks === 0 && lean === 0 && shift === 0) this.go(this.back ? 'turn' : 'go')
      return { ...still, forks, tilt: lean, shift }
    }
    if (this.phase === 'turn') {
      const off = Math.PI - Math.abs(m.pose.heading_rad)
      const { wheelbase_m } = d.truck.chassis
      const { greatest } = d.truck.travel
      if (off < 0.1 || this.turned) {
        this.turned = true
        if (Math.abs(m.speed_mps) > 0.001) return { ...still, travel: this.gently(0) / greatest }
        if (Math.abs(m.steer_rad) < 0.02) this.go('look')
        return { ...still, steer: clamp(m.steer_rad * 10) }
      }
      if (m.steer_rad > -d.truck.steer_rad + 0.01) return { ...still, steer: 1 }
      // Round the middle of its front axle nearly: gently, or the tail throws the weight aside.
      const round_m = wheelbase_m / Math.tan(d.truck.steer_rad)
      const target = Math.min(0.6 * Math.sqrt(round_m), Math.sqrt(0.5 * round_m * off))
      return { ...still, travel: this.gently(target) / greatest }
    }
    if (this.phase === 'look') {
      if (waited_s > 0.9) this.go('go')
      return { ...still, look: !habits.noLook }
    }
    if (this.phase === 'pick') {
      const high_m = d.nextPick?.height_m ?? 0
      if (d.picked > this.picked) this.go('down')
      return { ...still, forks: clamp((high_m - m.height_m) * 8) }
    }
    if (this.phase === 'down') {
      this.picked = d.picked
      if (m.height_m <= 0) this.go('go')
      return { ...still, forks: -1 }
    }
    if (this.phase === 'lower') {
      if (m.height_m <= 0 && m.tilt_deg <= 0.1) this.go('leave')
      return { ...still, forks: -1, tilt: m.tilt_deg > 0.1 ? -1 : 0 }
    }
    if (this.phase === 'leave') {
      const [brake_s, key_s] = habits.keyFirst ? [1.8, 1.2] : [0.6, 1.2]
      return { ...still, brake: !habits.noBrake && waited_s > brake_s, key: !habits.keyIn && waited_s > key_s }
    }
    return this.drive(still)
  }

  private drive(still: DriverActs): DriverActs {
    const { d, habits } = this
    const { motion: m, truck, course } = d
    const wb = truck.chassis.wheelbase_m
    const gone = (i: number) => Math.hypot((this.path[i]?.x_m ?? 0) - m.pose.x_m, (this.path[i]?.y_m ?? 0) - m.pose.y_m)
    while (this.at + 1 < this.path.length && gone(this.at + 1) <= gone(this.at)) this.at += 1
    const ahead_m = 0.9 * wb + 0.5 * Math.abs(m.speed_mps)
    const target = this.path[Math.min(this.path.length - 1, this.at + Math.ceil(ahead_m / 0.2))] ?? m.pose
    const [c, s] = [Math.cos(m.pose.heading_rad), Math.sin(m.pose.heading_rad)]
    const [dx, dy] = [target.x_m - m.pose.x_m, target.y_m - m.pose.y_m]
    const [lx, ly] = [dx * c + dy * s, -dx * s + dy * c]
    const bend = (2 * ly) / (lx * lx + ly * ly)
    const wanted = clamp(-Math.atan(bend * wb), truck.steer_rad)
    const steer = clamp((truck.faces * (m.steer_rad - wanted)) / (truck.steer_rad_s * 0.12))
    // How fast: what the bend allows now and a little on, who crosses, the end.
    const near = this.path[this.at]
    const corner = course.way[1]
    const toCorner = near && corner ? Math.hypot(near.x_m - corner.x_m, near.y_m - corner.y_m) : 99
    let speed = 0.4 * truck.travel.greatest
    if (toCorner < 4 + 2 * wb) speed = Math.min(speed, 0.9 + 0.05 * wb)
    if (Math.abs(bend) > 0.05) speed = Math.min(speed, Math.sqrt(1.2 / Math.abs(bend)))
    speed *= habits.speed ?? 1
    const left_m = this.left(d.load)
    const next = habits.noPick ? null : d.nextPick
    const toPick_m = next ? next.at_m - alongWay(course.way, m.pose) : 99
    speed = Math.min(speed, Math.sqrt(Math.max(0, 2 * 0.35 * (Math.min(left_m, toPick_m) - 0.03))))
    if (toPick_m < 0.2 && Math.abs(m.speed_mps) < 0.005) this.go('pick')
    if (!habits.noWait)
      for (const w of d.walkers) {
        const all = Math.hypot(w.crossing.to.x_m - w.crossing.from.x_m, w.crossing.to.y_m - w.crossing.from.y_m)
        const to_m = w.crossing.at_m - this.first()
        if (w.walked_m !== null && w.walked_m < all - 0.6 && to_m > 0)
          speed = Math.min(speed, Math.sqrt(Math.max(0, 2 * 0.6 * (to_m - 2))))
      }
    const way = this.back ? -1 : 1
    if (left_m < 0.05 && Math.abs(m.speed_mps) < 0.005) this.go('lower')
    const soon = (at_m: number) => {
      const until_s = (at_m - this.leadX()) / Math.max(0.1, Math.abs(m.speed_mps))
      return until_s < 1.7 && until_s > 0.9
    }
    return {
      ...still,
      steer,
      travel: way * clamp(speed / truck.travel.greatest),
      horn: !habits.noHorn && (soon(course.corner_m) || (course.door !== null && soon(course.yard_m))),
      look: this.back && !habits.noLook,
    }
  }

  private end(): Point {
    const { motion, truck } = this.d
    const x = this.back || truck.faces < 0 ? truck.body.rear_m : truck.load.front_m
    const { x_m, y_m, heading_rad } = motion.pose
    return { x_m: x_m + x * Math.cos(heading_rad), y_m: y_m + x * Math.sin(heading_rad) }
  }
  private leadX = () => this.end().x_m
  private first(): number {
    const e = this.end()
    const [, b] = this.d.course.way
    return b && e.x_m < b.x_m - 1.5 ? e.x_m : (b?.x_m ?? 0) + Math.abs(e.y_m)
  }
  private left(load: Point): number {
    const [, b, c] = this.d.course.way
    if (!b || !c) return 0
    return load.x_m < b.x_m - 2 ? 99 : Math.abs(c.y_m) - Math.abs(load.y_m) * (Math.sign(load.y_m) === Math.sign(c.y_m) ? 1 : 0)
  }
}

/** A course driven to its end, and the run that says what was done. */
export function drivenBy(
  m: Machine,
  how: { seed: number; level: number },
  driver: (d: TruckDrive) => { acts: () => DriverActs },
): { drive: TruckDrive; run: DriveRun } {
  const drive = driveOn(m, how)
  const by = driver(drive)
  const levers = new LeverNotes(5)
  const notes: DriveRun['notes'] = []
  const held = { ...allOff, stop: false }
  while (!drive.over) {
    const acts = by.acts()
    for (const kind of [...driverSwitches, 'stop'] as const)
      if (acts[kind] !== held[kind]) {
        held[kind] = acts[kind]
        notes.push([drive.ticks, kind, acts[kind]])
      }
    const [travel = 0, steer = 0, forks = 0, tilt = 0, shift = 0] = levers.note(drive.ticks, [
      acts.travel,
      acts.steer,
      acts.forks,
      acts.tilt,
      acts.shift,
    ])
    drive.tick({ ...acts, travel, steer, forks, tilt, shift })
  }
  const run: DriveRun = {
    format: 'geolabe.practice/1',
    id: '00000000-0000-4000-8000-000000000001',
    game: 'drive',
    version: driveVersion,
    machine: { id: m.id, revision: m.revision },
    seed: how.seed,
    level: how.level,
    inputs: levers.inputs,
    notes,
  }
  return { drive, run }
}
