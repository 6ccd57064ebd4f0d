import { courseFor, driveMarks, drivingMotions, playDrive, playRun, rigOf } from '@geolabe/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readMachineFile } from '../../server/src/demo/files'
import { againOf } from '../src/practice/again'
import { DriveRecorder } from '../src/practice/drive-recorder'
import { bySticks, onPad } from '../src/practice/gamepad'
import { drivingLeversOf, feel, leversOf, pushed } from '../src/practice/levers'
import { Recorder } from '../src/practice/recorder'
import { creakOf } from '../src/practice/sound'
import { afterWords, attemptWords } from '../src/practice/words'
import { sayIn } from '../src/units/units'

const say = sayIn('metric')
const tern = readMachineFile('tern')
const rig = rigOf(tern)

const withHook = ['tern', 'petrel', 'plover', 'turnstone', 'kittiwake', 'cormorant', 'heron', 'curlew']

describe('the levers of practice', () => {
  it('stand as the machine has them, every motion both ways, each with a key of its own', () => {
    for (const id of withHook) {
      const m = readMachineFile(id)
      const r = rigOf(m)
      const ways = leversOf(m.controls, r).flatMap((l) => l.ways)
      for (const [axis, a] of r.axes.entries())
        expect(
          ways
            .filter((w) => w.axis === axis)
            .map((w) => w.sense)
            .sort(),
          `${id} ${a.motion}`,
        ).toEqual([-1, 1])
      expect(new Set(ways.map((w) => w.key)).size, id).toBe(ways.length)
      expect(
        ways.every((w) => w.key !== ''),
        id,
      ).toBe(true)
    }
    const names = (id: string) => leversOf(readMachineFile(id).controls, rigOf(readMachineFile(id))).map((l) => l.name)
    expect(names('tern')).toEqual(['Left lever', 'Right lever'])
    expect(names('plover')).toEqual(['First lever', 'Second lever', 'Third lever', 'Fourth lever'])
    expect(names('kittiwake')).toEqual(['Left lever', 'Right inner lever', 'Right outer lever'])
  })
  it('say nothing near their middle, little at first, and all at their end', () => {
    expect(feel(0.1)).toBe(0)
    expect(feel(1)).toBe(1)
    expect(feel(-1)).toBe(-1)
    expect(feel(0.56)).toBeCloseTo(0.25, 9)
    const right = leversOf(tern.controls, rig)[1]
    if (!right) throw new Error('no right lever')
    const axis = (motion: string) => rig.axes.findIndex((a) => a.motion === motion)
    // Back: boom up; left: lower.
    const said = pushed(right, -1, -0.5)
    expect(said.get(axis('luff'))).toBe(1)
    expect(said.get(axis('hoist'))).toBe(-0.5)
    expect([...pushed(right, 0, 0).values()]).toEqual([0, 0])
  })
})

describe('a gamepad', () => {
  const still = { forward: 0, right: 0 }
  it('has every lever of every machine, no two on the same, each motion both ways by itself', () => {
    for (const id of withHook) {
      const m = readMachineFile(id)
      const r = rigOf(m)
      const levers = leversOf(m.controls, r)
      const places = onPad(levers)
      expect(
        places.every((x) => x !== null),
        id,
      ).toBe(true)
      expect(new Set(places.map((x) => JSON.stringify(x))).size).toBe(levers.length)
      const n = r.axes.length
      expect(bySticks(levers, { sticks: [still, still], triggers: 0 }, n)).toEqual(r.axes.map(() => 0))
      const reached = new Set<string>()
      for (const to of [-1, 1]) {
        const one = (['forward', 'right'] as const).map((along) => ({ ...still, [along]: to }))
        const pads = [
          ...one.flatMap((moved) =>
            [[moved, still] as const, [still, moved] as const].map((sticks) => ({ sticks, triggers: 0 })),
          ),
          { sticks: [still, still] as const, triggers: to },
        ]
        for (const pad of pads) {
          const on = bySticks(levers, pad, n).flatMap((u, axis) => (u === 0 ? [] : [`${axis} ${u}`]))
          expect(on.length, `${id} ${JSON.stringify(pad)}`).toBeLessThanOrEqual(1)
          for (const x of on) reached.add(x)
        }
      }
      expect(reached.size, id).toBe(2 * n)
    }
  })
  it('is the machine’s own map: where a lever is pushed, its stick is', () => {
    const right = leversOf(tern.controls, rig)
    const axis = (motion: string) => rig.axes.findIndex((a) => a.motion === motion)
    // Right stick pulled back: boom up; left stick to the left: slew left.
    const said = bySticks(
      right,
      {
        sticks: [
          { forward: 0, right: -1 },
          { forward: -1, right: 0 },
        ],
        triggers: 0,
      },
      rig.axes.length,
    )
    expect([said[axis('luff')], said[axis('slew')], said[axis('hoist')], said[axis('extend')]]).toEqual([1, 1, 0, 0])
    const kittiwake = readMachineFile('kittiwake')
    expect(onPad(leversOf(kittiwake.controls, rigOf(kittiwake)))[0]).toEqual({ stick: 0, along: 'right' })
    // One that goes every way keeps a stick to itself; what has no room left lies on the triggers.
    const curlew = readMachineFile('curlew')
    expect(onPad(leversOf(curlew.controls, rigOf(curlew)))).toEqual([
      { stick: 0, along: 'forward' },
      { stick: 1, along: 'both' },
      { stick: 0, along: 'right' },
    ])
    const heron = readMachineFile('heron')
    expect(onPad(leversOf(heron.controls, rigOf(heron))).at(-1)).toBe('triggers')
  })
})

describe('a recorded run', () => {
  it('is the same however the frames fell: at thirty a second and at a hundred and forty-four', () => {
    const how = { seed: 3, level: 0.1 }
    const course = courseFor(rig, how.seed, how.level)
    const at = (fps: number) => {
      const r = new Recorder(tern, rig, course, how)
      // Levers change at whole ticks that both have a frame for: every half second.
      for (let k = 0; k < 20 * fps; k++) r.pass(1 / fps, [Math.floor((2 * k) / fps) % 3 === 1 ? 0.6 : 0, 0, 0, 0])
      return r
    }
    const [slow, quick] = [at(30), at(144)]
    const [a, b] = [
      playRun(tern, slow.run('6e6ad3c6-9d43-4c0c-9d4a-0a8d3a3b5c11')),
      playRun(tern, quick.run('6e6ad3c6-9d43-4c0c-9d4a-0a8d3a3b5c11')),
    ]
    expect(a.result.score).toBeCloseTo(b.result.score, 6)
    expect(a.result.same).toBe(true)
    // What is played again is what was seen.
    expect(a.drill.key()).toEqual(slow.drill.key())
    expect(a.drill.samples.length).toBe(slow.drill.samples.length)
  })
  it('stands still where the device falls behind, instead of running on unseen', () => {
    const r = new Recorder(tern, rig, courseFor(rig, 1, 0), { seed: 1, level: 0 })
    expect(r.pass(0.1, [])).toBe(true)
    expect(r.pass(3, [])).toBe(false)
    expect(r.time_s).toBeLessThan(0.4)
  })
  it('keeps what any levers said so that it comes to the same again', () => {
    const lever = fc.double({ min: -1, max: 1, noNaN: true })
    fc.assert(
      fc.property(
        fc.array(fc.tuple(lever, lever, lever, lever), { minLength: 5, maxLength: 40 }),
        fc.array(fc.nat(39), { maxLength: 2 }),
        (all, stops) => {
          const how = { seed: 9, level: 0.3 }
          const r = new Recorder(tern, rig, courseFor(rig, how.seed, how.level), how)
          for (const [i, levers] of all.entries()) {
            if (stops.includes(i)) r.stop()
            r.pass(0.2, levers)
          }
          const again = playRun(tern, r.run('6e6ad3c6-9d43-4c0c-9d4a-0a8d3a3b5c11'))
          expect(again.drill.key()).toEqual(r.drill.key())
          expect(again.result.stopped).toBe(r.drill.stopped)
        },
      ),
      { numRuns: 8 },
    )
  }, 60_000)
})

describe('what is said after a run', () => {
  const attempt = {
    plane: 'across',
    inward: null,
    from: 100,
    to: 900,
    caught: false,
    moves: 1,
    before_m: 1,
    late_s: 0.7,
    gain: 1,
    left: 0.6,
  } as const
  const clean = { attempts: [], faults: [], stopped: null, passed: true }
  it('names the largest mistake with its size, and what stopped it before anything else', () => {
    expect(attemptWords({ ...attempt, word: 'late' })).toBe('Across: 0.7 s late; the load was already coming back.')
    expect(attemptWords({ ...attempt, plane: 'along', word: 'overcorrected', gain: 1.4 })).toMatch(/^Along: too much, 40 % over/)
    expect(attemptWords({ ...attempt, plane: 'along', inward: false, word: 'late' })).toBe(
      'Along: 0.7 s late; the load was already coming back. Follow it in rather than out: that is easier, and the radius gets less.',
    )
    const small = { ...attempt, word: 'nearly', left: 0.3, plane: 'along' } as const
    expect(afterWords({ ...clean, attempts: [small, { ...attempt, word: 'late' }] }, say)).toMatch(/^Across/)
    expect(afterWords({ ...clean, attempts: [{ ...attempt, word: 'late' }], stopped: 'side-pull' }, say)).toMatch(/^Stopped/)
    expect(afterWords({ ...clean, faults: [{ word: 'too-fast', plane: 'along', tick: 3, left_m: 0.8 }] }, say)).toBe(
      'Along: set off too fast; that alone left 0.80 m of swing.',
    )
    expect(afterWords(clean, say)).toMatch(/kept still/)
    expect(afterWords({ ...clean, passed: false }, say)).toMatch(/Not every ring/)
  })
})

describe('a truck in practice', () => {
  const trucks = ['dunlin', 'puffin', 'whimbrel', 'godwit', 'avocet', 'bittern', 'sandpiper']
  it('has wheel, pedal, forks and tilt, and side shift where there is one, each both ways, each with a key of its own and a place on a gamepad', () => {
    for (const id of trucks) {
      const levers = drivingLeversOf(readMachineFile(id).controls)
      const ways = levers.flatMap((l) => l.ways)
      // A platform’s mast does not lean.
      const motions = id === 'dunlin' ? 5 : id === 'sandpiper' ? 3 : 4
      for (const axis of drivingMotions.slice(0, motions).keys())
        expect(
          ways
            .filter((w) => w.axis === axis)
            .map((w) => w.sense)
            .sort(),
          `${id} ${axis}`,
        ).toEqual([-1, 1])
      expect(new Set(ways.map((w) => w.key)).size, id).toBe(2 * motions)
      expect(onPad(levers).every((x) => x !== null)).toBe(true)
      // Two pedals that go one way each are one lever, with both their names.
      if (id === 'whimbrel') expect(levers.map((l) => l.name)).toContain('Left pedal, Right pedal')
    }
  })
  it('comes to the same at thirty frames a second as at a hundred and forty-four, and driven again from its notes', () => {
    const m = readMachineFile('whimbrel')
    const play = (fps: number) => {
      const r = new DriveRecorder(m, { seed: 3, level: 0.5 })
      for (let t = 0; t < 12 && !r.drive.over; t += 1 / fps) {
        const tick = Math.round(t * 6)
        r.hold('horn', tick % 20 > 17)
        r.pass(1 / fps, [tick > 8 && tick < 40 ? 0.4 : 0, tick > 30 && tick < 34 ? 0.3 : 0, tick < 2 ? 1 : 0, tick < 4 ? 0.8 : 0])
      }
      return r
    }
    const [slow, fast] = [play(30), play(144)]
    const again = playDrive(m, { ...slow.run('00000000-0000-4000-8000-000000000001') })
    const [a, b] = [slow.drive.motion.pose, fast.drive.motion.pose]
    // Frames fall a tick or two apart, no more.
    expect(Math.hypot(a.x_m - b.x_m, a.y_m - b.y_m)).toBeLessThan(0.1)
    expect(again.track.slice(0, slow.drive.track.length)).toEqual(slow.drive.track)
    expect(driveMarks(again).stopped).toBe('too-long')
  })
  it('stands once it is stopped, until the pedal is let go of; driven again from its notes it does so too', () => {
    const r = new DriveRecorder(readMachineFile('dunlin'), { seed: 2, level: 0 })
    const on = (s: number, travel: number) => {
      for (let t = 0; t < s; t += 1 / 60) r.pass(1 / 60, [travel, 0, 0, 0])
    }
    on(1, 0.5)
    expect(r.drive.motion.speed_mps).toBeGreaterThan(0.5)
    r.stop()
    on(2, 0.5)
    expect(r.drive.motion.speed_mps).toBe(0)
    // A thumb that trembles lets nothing go.
    on(0.5, 0.4)
    expect(r.drive.motion.speed_mps).toBe(0)
    on(0.2, 0)
    on(0.5, 0.4)
    expect(r.drive.motion.speed_mps).toBeGreaterThan(0)
    // Stopped while it stands, the next push goes.
    on(2, 0)
    r.stop()
    on(0.1, 0)
    on(0.5, 0.2)
    expect(r.drive.motion.speed_mps).toBeGreaterThan(0)
    const { track } = r.drive
    const again = playDrive(readMachineFile('dunlin'), r.run('00000000-0000-4000-8000-000000000001'))
    expect(again.track.slice(0, track.length)).toEqual(track)
  })
})

describe('buttons', () => {
  it('that go one way each are one lever, pressed all or nothing; a valve beside a button opens as far as it is turned', () => {
    const of = (id: string) => {
      const m = readMachineFile(id)
      const r = rigOf(m)
      return { r, levers: leversOf(m.controls, r) }
    }
    const dipper = of('dipper')
    expect(dipper.levers.map((l) => l.ways.map((w) => [w.does, w.way, w.key]))).toEqual([
      [
        ['Hoist', 'up', 'w'],
        ['Lower', 'down', 's'],
      ],
      [
        ['Travel left', 'left', 'ArrowLeft'],
        ['Travel right', 'right', 'ArrowRight'],
      ],
    ])
    const axis = (motion: string) => dipper.r.axes.findIndex((a) => a.motion === motion)
    const [up, along] = dipper.levers
    if (!up || !along) throw new Error('no buttons')
    expect(pushed(up, 0.2, 0).get(axis('hoist'))).toBe(1)
    expect(pushed(up, -0.2, 0).get(axis('hoist'))).toBe(-1)
    expect(pushed(along, 0, 0.2).get(axis('trolley'))).toBe(1)
    expect(pushed(up, 0, 0).get(axis('hoist'))).toBe(0)
    const [luff] = of('wren').levers
    if (!luff) throw new Error('no boom')
    const on = of('wren').r.axes.findIndex((a) => a.motion === 'luff')
    expect([pushed(luff, 0.2, 0).get(on), pushed(luff, -0.2, 0).get(on)]).toEqual([1, -0.2])
  })
})

describe('a run seen again', () => {
  it('goes back and forth to the same moments, on every machine, also where its course slows one of two hoists', () => {
    for (const id of ['tern', 'gannet']) {
      const machine = readMachineFile(id)
      const r = rigOf(machine)
      const how = { seed: 11, level: 0.5 }
      const recorder = new Recorder(machine, r, courseFor(r, how.seed, how.level), how)
      for (let k = 0; k < 40; k++)
        recorder.pass(
          0.1,
          r.axes.map((a) => (a.motion === 'hoist' || a.motion === 'rear' ? -0.5 : 0.2)),
        )
      const again = againOf(machine, recorder.run('5b0a2f3e-6c41-4c63-9d0f-8a1f0a6f7c11'))
      if (!again) throw new Error('nothing to see')
      const seen = (): number[] => Reflect.get(again, 'drill').key()
      again.to(400)
      const first = seen()
      again.to(60)
      again.to(400)
      expect(seen()).toEqual(first)
      again.to(again.ticks)
      expect(seen()).toEqual(recorder.drill.key())
    }
  })
})

describe('the sound of the rope', () => {
  it('is none while the load hangs under its hook, grows with how far it is off, and never roars', () => {
    const metres = fc.double({ min: 0, max: 20, noNaN: true })
    fc.assert(
      fc.property(metres, metres, fc.double({ min: 0.25, max: 2, noNaN: true }), (a, b, allowed) => {
        const [less, more] = [creakOf(Math.min(a, b), allowed), creakOf(Math.max(a, b), allowed)]
        expect(less.gain).toBeLessThanOrEqual(more.gain)
        expect(less.hz).toBeLessThanOrEqual(more.hz)
        expect(more.gain).toBeLessThanOrEqual(0.14)
        expect(creakOf(allowed / 4, allowed).gain).toBe(0)
      }),
    )
  })
})
