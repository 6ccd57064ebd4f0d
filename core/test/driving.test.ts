import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  allOff,
  bendSpeeds,
  type DriverActs,
  driveLessons,
  driveMarks,
  drivenOn,
  drivenTruck,
  driveOn,
  driveRules,
  footprint,
  inSight,
  leaningOn,
  leftWell,
  lookAhead,
  markDrive,
  overAfter,
  playDrive,
  stabilityTriangle,
  standingOn,
  stoppingDistance,
  TruckMotion,
  tipsAt_mps2,
} from '../src'
import { demoMachine } from './demo'
import { drivenBy, type Habits, SteadyDriver } from './driver'

const rad = Math.PI / 180
const trucks = ['dunlin', 'puffin', 'whimbrel', 'godwit', 'avocet', 'bittern', 'sandpiper'] as const
const still: DriverActs = { travel: 0, steer: 0, forks: 0, tilt: 0, shift: 0, ...allOff, stop: false }
const level = { slope: null, friction: 0.6 }
const flat = { x_m: 0, y_m: 0, heading_rad: 0 }
const motionOf = (id: string) => new TruckMotion(drivenTruck(demoMachine(id), false), flat)

describe('a truck as it goes', () => {
  it('comes to where the plan of straight, bend and back says', () => {
    let at = flat
    const go = (speed_mps: number, steer_deg: number, s: number) => {
      const going = { speed_mps, steer_rad: steer_deg * rad }
      for (let i = 0; i < s * 120; i++) at = drivenOn(at, 1.6, going, going, 1 / 120)
    }
    go(1.5, 0, 2)
    go(1.2, 40, 3)
    go(-1, 0, 2)
    expect(at.x_m).toBeCloseTo(5.435466, 6)
    expect(at.y_m).toBeCloseTo(-0.601274, 6)
    expect(at.heading_rad / rad).toBeCloseTo(-108.172952, 6)
  })
  it('goes round in the circle of its steering, whatever the angle and the speed', () => {
    const some = fc.record({
      speed: fc.double({ min: -3, max: 3, noNaN: true }),
      steer: fc.double({ min: -70, max: 70, noNaN: true }),
      wb: fc.double({ min: 1.2, max: 3.5, noNaN: true }),
      s: fc.integer({ min: 1, max: 6 }),
    })
    fc.assert(
      fc.property(some, ({ speed, steer, wb, s }) => {
        const going = { speed_mps: speed, steer_rad: steer * rad }
        let at = flat
        for (let i = 0; i < s * 120; i++) at = drivenOn(at, wb, going, going, 1 / 120)
        const rate = (-speed * Math.tan(steer * rad)) / wb
        const turned = rate * s
        const exact =
          Math.abs(rate) < 1e-9 ? [speed * s, 0] : [(speed / rate) * Math.sin(turned), (speed / rate) * (1 - Math.cos(turned))]
        expect(at.heading_rad).toBeCloseTo(turned, 9)
        expect(Math.hypot(at.x_m - (exact[0] ?? 0), at.y_m - (exact[1] ?? 0))).toBeLessThan(1e-6)
      }),
    )
  })
  it('driven by the wheel that steers goes as far as that wheel points, and turns on the middle of its front axle at a right angle', () => {
    const some = fc.record({
      speed: fc.double({ min: -3, max: 3, noNaN: true }),
      steer: fc.double({ min: -90, max: 90, noNaN: true }),
      wb: fc.double({ min: 1.2, max: 3.5, noNaN: true }),
    })
    fc.assert(
      fc.property(some, ({ speed, steer, wb }) => {
        const going = { speed_mps: speed, steer_rad: steer * rad, axle: 'rear' as const }
        let at = flat
        for (let i = 0; i < 240; i++) at = drivenOn(at, wb, going, going, 1 / 120)
        const turned = ((-speed * Math.sin(steer * rad)) / wb) * 2
        expect(at.heading_rad).toBeCloseTo(turned, 9)
        // The middle of its front axle has gone the chord of its own circle.
        const along = speed * Math.cos(steer * rad) * 2
        const chord = Math.abs(turned) < 1e-9 ? along : (along / turned) * 2 * Math.sin(turned / 2)
        expect(Math.hypot(at.x_m, at.y_m)).toBeCloseTo(Math.abs(chord), 6)
        // Slower than by its front wheels by as much as the wheel is turned.
        if (Math.abs(steer) > 80) return
        const front = { speed_mps: speed * Math.cos(steer * rad), steer_rad: steer * rad }
        const same = drivenOn(flat, wb, front, front, 1 / 120)
        const one = drivenOn(flat, wb, going, going, 1 / 120)
        expect([one.x_m - same.x_m, one.heading_rad - same.heading_rad].every((x) => Math.abs(x) < 1e-12)).toBe(true)
      }),
    )
    const across = { speed_mps: 1, steer_rad: 90 * rad, axle: 'rear' as const }
    const on = drivenOn(flat, 1.55, across, across, 1)
    expect(Math.hypot(on.x_m, on.y_m)).toBeLessThan(1e-12)
    expect(on.heading_rad).toBeCloseTo(-1 / 1.55, 9)
  })
  it('chassis first goes the way its driver faces, left is their left, and raised it goes slowly or not at all', () => {
    const m = motionOf('sandpiper')
    const on = (s: number, says: Partial<DriverActs>) => {
      for (let i = 0; i < s * 120; i++) m.tick({ ...still, ...says }, level)
    }
    on(2, { travel: 1 })
    expect(m.pose.x_m).toBeLessThan(-1)
    const before = { ...m.pose }
    on(1, { travel: 0.3, steer: 1 })
    // Facing the other way, to the left is towards less y; it turns anticlockwise as anything does that goes left.
    expect(m.pose.heading_rad).toBeGreaterThan(0.05)
    expect(m.pose.y_m).toBeLessThan(before.y_m)
    on(3, {})
    const { platform } = m.truck.driving
    if (!platform) throw new Error('no platform')
    on((platform.above_m + 0.2) / 0.3, { forks: 1 })
    on(5, { travel: 1 })
    expect(Math.abs(m.speed_mps)).toBeCloseTo(platform.slow_mps, 6)
    on(2, {})
    on((platform.most_m + 0.3) / 0.3, { forks: 1 })
    on(3, { travel: 1 })
    expect(m.speed_mps).toBe(0)
    // Foot off stands it sooner than letting go.
    const stand = (stop: boolean) => {
      const t = motionOf('sandpiper')
      for (let i = 0; i < 480; i++) t.tick({ ...still, travel: 1 }, level)
      const from = t.pose.x_m
      for (let i = 0; i < 1200 && t.speed_mps !== 0; i++) t.tick(still, level, stop)
      return Math.abs(t.pose.x_m - from)
    }
    expect(stand(true)).toBeLessThan(0.6 * stand(false))
  })
  it('stands on a ramp by its heading', () => {
    const { pitch_rad, roll_rad } = standingOn({ grade_rad: 8 * rad, towards_rad: 0 }, { heading_rad: 30 * rad })
    expect(pitch_rad / rad).toBeCloseTo(6.922544, 6)
    expect(roll_rad / rad).toBeCloseTo(-3.99024, 6)
  })
  it('stops in what reaction and brake take, and not at all where the slope takes more', () => {
    expect(stoppingDistance({ speed_mps: 2.5, reaction_s: 0.75, braking_mps2: 1.5 })).toBeCloseTo(3.958333, 6)
    expect(stoppingDistance({ speed_mps: 2.5, reaction_s: 0.75, braking_mps2: 1.5, uphill_rad: -10 * rad })).toBeNull()
    expect(stoppingDistance({ speed_mps: 2.5, reaction_s: 0.75, braking_mps2: 1.5, grip_mps2: 0.5 })).toBeCloseTo(8.125, 9)
  })
  it('turns over an edge when and only when it is pushed hard and long enough', () => {
    const of = { inside_m: 0.28, height_m: 0.95, gyration_m: 0.7 }
    expect(tipsAt_mps2(of)).toBeCloseTo(2.890381, 6)
    expect(overAfter(of, 3.4, 10)).toBeCloseTo(1.001875, 6)
    expect(overAfter(of, 2.89, 10)).toBeNull()
    // Pushed for half as long, it comes down again.
    let lean = { angle_rad: 0, rate_rad_s: 0 }
    for (let i = 0; i < 600; i++) lean = leaningOn(of, lean, i < 60 ? 3.4 : 0, 1 / 120)
    expect(lean.angle_rad).toBe(0)
  })
  it('has the room that the calculator says at every tick, with what its centre of gravity feels', () => {
    const lever = fc.double({ min: -1, max: 1, noNaN: true })
    const stretch = fc.record({
      travel: lever,
      steer: lever,
      forks: lever,
      tilt: lever,
      shift: lever,
      ticks: fc.integer({ min: 5, max: 80 }),
    })
    const grade = fc.record({
      grade_rad: fc.double({ min: 0, max: 0.1, noNaN: true }),
      towards_rad: fc.double({ min: -3, max: 3, noNaN: true }),
    })
    fc.assert(
      fc.property(fc.constantFrom(...trucks), fc.array(stretch, { minLength: 2, maxLength: 6 }), grade, (id, says, slope) => {
        const m = motionOf(id)
        const { chassis } = m.truck
        for (const s of says)
          for (let i = 0; i < s.ticks; i++) {
            m.tick(s, { slope, friction: 0.6 })
            const { balance: b, stands: felt } = m
            const standing = (x_m: number) =>
              stabilityTriangle({
                masses: [{ mass_kg: b.total_kg, x_m, y_m: b.y_m, z_m: b.z_m }],
                frontHalfTrack_m: chassis.frontHalfTrack_m,
                wheelbase_m: chassis.wheelbase_m,
                rear: 'pivot',
                pitch_deg: m.pitch_rad / rad,
                roll_deg: m.roll_rad / rad,
                speed_mps: Math.sqrt(Math.abs(felt.lateral_mps2)),
                turnRadius_m: felt.lateral_mps2 < 0 ? -1 : 1,
                braking_mps2: felt.braking_mps2,
              }).margins
            expect(m.room.left).toBeCloseTo(standing(b.x_m).left_m, 9)
            expect(m.room.right).toBeCloseTo(standing(b.x_m).right_m, 9)
            expect(m.room.front).toBeCloseTo(standing(b.xFront_m).front_m, 9)
          }
      }),
      { numRuns: 25 },
    )
  })
  it('goes no faster than its drive, turns its wheels no faster than they turn, and leaves them where they were left', () => {
    for (const id of trucks) {
      const m = motionOf(id)
      for (let i = 0; i < 240; i++) m.tick({ ...still, travel: 1 }, level)
      const { travel, steer_rad_s, chassis } = m.truck
      const forward_mps = m.truck.faces * m.speed_mps
      expect(forward_mps).toBeLessThanOrEqual(travel.greatest + 1e-9)
      expect(forward_mps).toBeGreaterThan(0.3 * travel.greatest)
      const before = m.steer_rad
      m.tick({ ...still, steer: 1 }, level)
      expect(m.truck.faces * (before - m.steer_rad)).toBeCloseTo(steer_rad_s / 120, 9)
      const left = m.steer_rad
      for (let i = 0; i < 400; i++) m.tick(still, level)
      expect(m.steer_rad).toBe(left)
      expect(m.speed_mps).toBe(0)
      for (let i = 0; i < 900; i++) m.tick({ ...still, steer: -1 }, level)
      expect(m.truck.faces * m.steer_rad).toBeCloseTo(chassis.steer_deg * rad, 9)
    }
  })
  it('brakes no harder than its tyres hold, and holds on a ramp once it stands', () => {
    for (const id of trucks) {
      const on = { slope: { grade_rad: 0.06, towards_rad: 0 }, friction: 0.6 }
      const m = motionOf(id)
      for (let i = 0; i < 120; i++) m.tick(still, on)
      expect(Math.abs(m.speed_mps)).toBe(0)
      const [dry, ice] = [motionOf(id), motionOf(id)]
      const stops = (t: TruckMotion, friction: number) => {
        for (let i = 0; i < 300; i++) t.tick({ ...still, travel: 0.5 }, level)
        const from = t.pose.x_m
        for (let i = 0; i < 4000 && t.speed_mps !== 0; i++) t.tick(still, { slope: null, friction })
        return Math.abs(t.pose.x_m - from)
      }
      expect(stops(ice, 0.03)).toBeGreaterThan(1.3 * stops(dry, 0.6))
    }
  })
  it('tells a bend’s speeds, and what comes if all is held as it is', () => {
    const m = motionOf('whimbrel')
    expect(bendSpeeds(m)).toEqual({ tips_mps: null, permitted_mps: null })
    for (let i = 0; i < 360; i++) m.tick({ ...still, travel: 0.7 }, level)
    expect(lookAhead(m, { ...still, travel: 0.7 }, level)).toBeNull()
    const ahead = lookAhead(m, { ...still, travel: 0.7, steer: 1 }, level)
    // Steering left at speed it leans over its right side; the look ahead changes nothing.
    expect(ahead?.edge).toBe('right')
    expect(m.steer_rad).toBe(0)
    for (let i = 0; i < Math.round((ahead?.in_s ?? 0) * 120); i++) m.tick({ ...still, travel: 0.7, steer: 1 }, level)
    expect(m.room.right).toBeLessThan(m.roomAtRest.right / 3)
    const { tips_mps, permitted_mps } = bendSpeeds(m)
    expect(permitted_mps ?? 0).toBeLessThan(tips_mps ?? 0)
  })
})

// Two of them go up a ramp, load first.
const seeds = [1, 2, 3, 4, 5, 6, 7, 8, 24, 36]
const driven = (id: string, seed: number, habits: Habits = {}, hard = (seed % 5) / 4) =>
  drivenBy(demoMachine(id), { seed, level: hard }, (d) => new SteadyDriver(d, habits))
const markOf = (id: string, seed: number, habits: Habits, rule: string) =>
  driven(id, seed, habits)
    .drive.rules()
    .find((r) => r.rule === rule)?.mark

describe('a course driven', () => {
  it('is passed by a steady driver on every truck, and driven again it comes to the same', () => {
    for (const id of trucks)
      for (const seed of seeds) {
        const { drive, run } = driven(id, seed)
        const marks = driveMarks(drive)
        expect(marks, `${id} ${seed} ${JSON.stringify(marks)}`).toMatchObject({ passed: true, stopped: null })
        expect(marks.score, `${id} ${seed}`).toBeGreaterThan(90)
        expect(
          marks.rules.filter((r) => r.mark !== 'kept'),
          `${id} ${seed}`,
        ).toEqual([])
        expect(markDrive(demoMachine(id), structuredClone(run))).toEqual(marks)
      }
  })
  it('tells every rule kept and every rule missed', () => {
    const [kept, missed] = [new Set<string>(), new Set<string>()]
    // What a platform asks besides.
    for (const r of driven('sandpiper', 2).drive.rules()) if (r.mark === 'kept') kept.add(r.rule)
    for (const r of driven('sandpiper', 2, { noPick: true }).drive.rules()) if (r.mark === 'missed') missed.add(r.rule)
    const habits: Habits[] = [
      { noHorn: true },
      { noLook: true },
      { noTilt: true },
      { forks_m: 0.5 },
      { forwards: true },
      { noWait: true, speed: 1.6 },
      { speed: 4, noWait: true },
      { noBrake: true },
      { noCentre: true },
    ]
    for (const seed of seeds) {
      // One of them with a carriage that goes to the side.
      for (const id of ['puffin', 'dunlin']) {
        for (const r of driven(id, seed).drive.rules()) if (r.mark === 'kept') kept.add(r.rule)
        for (const h of habits) for (const r of driven(id, seed, h).drive.rules()) if (r.mark === 'missed') missed.add(r.rule)
      }
    }
    expect([...kept].sort()).toEqual([...driveRules].sort())
    expect([...missed].sort()).toEqual([...driveRules].sort())
  })
  it('names the one thing left out, and nothing else', () => {
    const of = (habits: Habits, rule: string) => {
      for (const seed of seeds) {
        const mark = markOf('dunlin', seed, habits, rule)
        if (mark !== undefined) expect(mark, `${rule} ${seed}`).toBe('missed')
      }
    }
    of({ noHorn: true }, 'corner-horn')
    of({ noHorn: true }, 'door-horn')
    of({ noLook: true }, 'look-back')
    of({ noTilt: true }, 'mast-back')
    of({ forks_m: 0.4 }, 'travel-height')
    of({ noBrake: true }, 'leaving')
    of({ keyIn: true }, 'leaving')
    expect(markOf('dunlin', 1, { keyFirst: true }, 'leaving')).toBe('late')
  })
  it('is left as a truck is left: no lever moves it with its brake on or its key out, and who stays on has not left it', () => {
    for (const off of ['brake', 'key'] as const) {
      const drive = driveOn(demoMachine('dunlin'), { seed: 1, level: 0 })
      for (let i = 0; i < 600; i++) drive.tick({ ...still, travel: 1, forks: 1, [off]: true })
      expect(drive.motion.speed_mps).toBe(0)
      expect(drive.motion.height_m > 0).toBe(off === 'brake')
    }
    const { drive } = driven('dunlin', 1, { keyIn: true })
    expect([drive.finished, drive.isSetDown, driveMarks(drive).passed]).toEqual([true, true, false])
    // Twenty seconds on its load, and no longer.
    expect(drive.time_s - driven('dunlin', 1).drive.time_s).toBeGreaterThan(15)
    expect(drive.time_s - driven('dunlin', 1).drive.time_s).toBeLessThan(21)
    // With its forks' tips up it is not as it should be.
    expect(leftWell({ brake: 5, key: 9, upright: false })).toBe('late')
    expect(leftWell({ brake: 9, key: 9, upright: true })).toBe('kept')
  })
  it('is never passed with a rule missed, with its load dragged over the floor, nor by holding the look all the time', () => {
    const of = (habits: Habits) => seeds.map((seed) => driven('dunlin', seed, habits).drive)
    for (const drive of [...of({ noHorn: true }), ...of({ noTilt: true })]) expect(driveMarks(drive).passed).toBe(false)
    for (const drive of of({ forks_m: 0.005 })) {
      expect(drive.rules().find((r) => r.rule === 'travel-height')?.mark).toBe('missed')
      expect(driveMarks(drive).passed).toBe(false)
    }
    // Rolling forwards with eyes back until the very moment it is thrown into reverse.
    const drive = driveOn(demoMachine('dunlin'), { seed: 2, level: 0 })
    while (drive.ticks < 500) {
      const [forks, tilt] = [drive.motion.height_m < 0.1 ? 1 : 0, drive.motion.tilt_deg < 4 ? 1 : 0]
      drive.tick({ ...still, forks, tilt, look: drive.ticks < 360, travel: drive.ticks < 300 ? 0.3 : -0.3 })
    }
    expect(drive.rules().find((r) => r.rule === 'look-back')?.mark).toBe('missed')
  })
  it('is never passed forwards behind a load that hides the way, nor with its load downhill', () => {
    let tried = 0
    for (const id of trucks)
      for (const seed of seeds) {
        const { drive } = driven(id, seed, { forwards: true })
        const { tall, ramp, way } = drive.course
        const down = ramp !== null && Math.sign(ramp.slope.towards_rad) !== Math.sign(way[2]?.y_m ?? 0)
        if (!tall && !down) continue
        tried += 1
        const missed = drive.rules().flatMap((r) => (r.mark === 'missed' ? [r.rule] : []))
        if (tall) expect(missed, `${id} ${seed}`).toContain('view-blocked')
        // Where it got as far as the ramp.
        else if (drive.stopped === null) expect(missed, `${id} ${seed}`).toContain('load-uphill')
        expect(driveMarks(drive).passed, `${id} ${seed}`).toBe(false)
      }
    expect(tried).toBeGreaterThan(10)
  })
  it('ends where a truck would have tipped, hit somebody or something, and then counts nothing', () => {
    const ends = new Set<string | null>()
    for (const id of ['puffin', 'whimbrel', 'godwit'])
      for (const seed of seeds)
        for (const h of [
          { speed: 3, noWait: true as const },
          { speed: 2, noWait: true as const },
        ]) {
          const marks = driveMarks(driven(id, seed, h).drive)
          ends.add(marks.stopped)
          if (marks.stopped) expect(marks).toMatchObject({ score: 0, passed: false })
        }
    ends.add(
      driveMarks(
        drivenBy(demoMachine('dunlin'), { seed: 2, level: 0 }, () => ({ acts: () => ({ ...still, travel: -0.4 }) })).drive,
      ).stopped,
    )
    // Full speed and the wheel thrown over: it goes over.
    const drive = driveOn(demoMachine('whimbrel'), { seed: 2, level: 0 })
    while (!drive.over)
      drive.tick({ ...still, travel: 1, forks: drive.motion.height_m < 2 ? 1 : 0, steer: drive.ticks > 200 ? 1 : 0 })
    ends.add(drive.stopped)
    for (const end of ['tipped', 'touched', 'struck']) expect([...ends], end).toContain(end)
  })
  it('gives nothing for standing, creeping, sounding the horn all the time or moving levers by lot', () => {
    for (const id of trucks)
      for (const seed of [7]) {
        const m = demoMachine(id)
        const how = { seed, level: 0.5 }
        const idle = driveMarks(drivenBy(m, how, () => ({ acts: () => still })).drive)
        expect(idle).toMatchObject({ score: 0, passed: false, stopped: 'too-long' })
        const creeping = drivenBy(m, how, (d) => {
          const steady = new SteadyDriver(d)
          const slow = (u: number) => Math.max(-0.06, Math.min(0.06, u))
          return {
            acts: () => {
              const a = steady.acts()
              return { ...a, travel: slow(a.travel), forks: slow(a.forks), tilt: slow(a.tilt) }
            },
          }
        })
        expect(driveMarks(creeping.drive).score, `${id} creeping`).toBeLessThanOrEqual(30)
        const loud = drivenBy(m, how, (d) => {
          const steady = new SteadyDriver(d)
          return { acts: () => ({ ...steady.acts(), horn: true }) }
        })
        expect(loud.drive.rules().filter((r) => r.rule === 'corner-horn' && r.mark !== 'missed')).toEqual([])
        let a = seed
        const lot = () => {
          a = (Math.imul(a, 1_103_515_245) + 12_345) & 0x7fffffff
          return a / 0x40000000 - 1
        }
        let says = still
        const wild = drivenBy(m, how, (d) => ({
          acts: () => {
            if (d.ticks % 30 === 0) says = { ...still, travel: lot(), steer: lot(), forks: lot(), tilt: lot() }
            return says
          },
        }))
        expect(driveMarks(wild.drive).score).toBeLessThanOrEqual(30)
      }
  })
  it('is seen and heard by nobody behind a wall, and is as long as it is drawn', () => {
    const { course } = driveOn(demoMachine('dunlin'), { seed: 2, level: 0 })
    const [, corner, end] = course.way
    if (!corner || !end) throw new Error('no way')
    const start = { x_m: 0, y_m: 0 }
    expect(inSight(start, corner, course.walls)).toBe(true)
    expect(inSight(corner, end, course.walls)).toBe(true)
    expect(inSight(start, end, course.walls)).toBe(false)
    for (const id of trucks) {
      const m = demoMachine(id)
      const xs = footprint(drivenTruck(m, false), { pose: flat, shift_m: 0 }).flatMap((shape) => shape.map((p) => p.x_m))
      const drawn = m.outline.plan.filter((p) => !p.raised).flatMap((p) => p.points.map((q) => q[0]))
      expect(Math.max(...xs), id).toBeGreaterThanOrEqual(Math.max(...drawn))
      expect(Math.min(...xs), id).toBeLessThanOrEqual(Math.min(...drawn))
    }
  })
  it('hits nobody while it stands: whoever crosses stands before it', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const drive = driveOn(demoMachine('dunlin'), { seed, level: 1 })
      const at_m = (drive.course.people[0]?.from.x_m ?? 0) - 0.6
      // Forwards until its load lies where they cross, and left there.
      while (!drive.over && drive.time_s < 40)
        drive.tick({ ...still, travel: drive.load.x_m < at_m - drive.motion.speed_mps ** 2 / 3 ? 0.5 : 0 })
      if (drive.stopped === 'struck') expect(Math.abs(drive.motion.speed_mps), `${seed}`).toBeGreaterThan(0.05)
    }
  })
  it('teaches wrong where it was wrong, right only where the load came to its place', () => {
    const good = driveMarks(driven('dunlin', 2).drive)
    expect(driveLessons(good).every((l) => l.right)).toBe(true)
    const quiet = driveLessons(driveMarks(driven('dunlin', 2, { noHorn: true }).drive))
    expect(quiet.filter((l) => !l.right).map((l) => l.point)).toEqual(['corner-horn'])
    const hit = driveLessons({ rules: [{ rule: 'travel-height', mark: 'kept' }], stopped: 'touched', off_m: null })
    expect(hit).toEqual([{ point: 'touched', right: false, sure: null }])
    // Whoever never moves shows nothing.
    expect(driveLessons({ rules: good.rules, stopped: 'too-long', off_m: null })).toEqual([])
  })
  it('is the same for a seed, holds ramps both ways and loads that hide the way, and lies within its walls', () => {
    const seen = new Set<string>()
    for (const id of trucks)
      for (let seed = 1; seed <= (id === 'dunlin' ? 60 : 8); seed++) {
        const how = { seed, level: 0.5 }
        const { course, truck } = driveOn(demoMachine(id), how)
        expect(course).toEqual(driveOn(demoMachine(id), how).course)
        const up = course.ramp && Math.sign(course.ramp.slope.towards_rad) === Math.sign(course.way[2]?.y_m ?? 0)
        seen.add(`${course.tall ? 'tall' : 'low'} ${course.ramp ? (up ? 'up' : 'down') : 'level'} ${course.wet ? 'wet' : 'dry'}`)
        expect(course.tall && up).not.toBe(true)
        expect(truck.tall).toBe(course.tall)
        const walls = course.walls.map((w) => w.box)
        for (const p of course.way)
          expect(walls.some(([x0, x1, y0, y1]) => p.x_m > x0 && p.x_m < x1 && p.y_m > y0 && p.y_m < y1)).toBe(false)
      }
    for (const what of ['tall level dry', 'tall down dry', 'low up dry', 'low down dry', 'low level wet'])
      expect(seen).toContain(what)
  })
  it('refuses what cannot be driven again, naming it', () => {
    const { run } = driven('dunlin', 2)
    const m = demoMachine('dunlin')
    const code = (over: object) => {
      try {
        playDrive(m, { ...run, ...over })
        return null
      } catch (e) {
        return (e as { code: string }).code
      }
    }
    expect(code({})).toBeNull()
    expect(code({ version: 9 })).toBe('version-unknown')
    expect(code({ machine: { id: 'dunlin', revision: 99 } })).toBe('machine-changed')
    expect(code({ inputs: [[0, 5, 1]] })).toBe('axis-unknown')
    expect(
      code({
        inputs: [
          [9, 0, 1],
          [8, 0, 1],
        ],
      }),
    ).toBe('inputs-order')
    expect(
      code({
        notes: [
          [9, 'horn', true],
          [8, 'horn', false],
        ],
      }),
    ).toBe('inputs-order')
    expect(() => driveOn(demoMachine('tern'), { seed: 1, level: 0 })).toThrow(/not offered/)
  })
})
