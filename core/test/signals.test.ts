import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { drawnSignals, type SignalId, signalIds } from '../src/hand-signals/hand-signal'
import type { LeverInputs } from '../src/practice/inputs'
import { planesOn } from '../src/practice/planes'
import { givenAgain, knownBy } from '../src/signals/again'
import { isCalling, signalCourse, silence_s } from '../src/signals/course'
import { shownBy } from '../src/signals/giving'
import { signalMarks } from '../src/signals/marks'
import { canSignal, markSignals, type SignalRun, signalLessons, signalRun, signalVersion } from '../src/signals/run'
import { movesOn } from '../src/signals/signal'
import { isByEitherArm, signallerFor } from '../src/signals/signaller'
import { nextSignal, type Situation, situations } from '../src/signals/situation'
import { tick_s } from '../src/swing/axis'
import { demoMachine, demoMachines, tern } from './demo'
import { runs } from './runs'

const motions = ['slew', 'luff', 'extend', 'hoist']
const seed = fc.integer({ min: 0, max: 2 ** 32 - 1 })
const level = fc.double({ min: 0, max: 1, noNaN: true })
type Course = ReturnType<typeof signalCourse>
/** A motion begins: what moves already and is to go slower is none. */
const isMove = ({ wants }: Course[number]) => typeof wants === 'object' && !wants.slow

/** Somebody who does what is asked so long after each picture. */
function answering(course: Course, after_s: { move: number; stop: number }, wrong = false): LeverInputs {
  const inputs: LeverInputs = []
  let held: number | null = null
  const late = (from: number, s: number) => from + Math.round(s / tick_s)
  for (const p of course) {
    if (p.wants === 'nothing') continue
    if (p.wants === 'stop') {
      if (held !== null) inputs.push([late(p.from, after_s.stop), held, 0])
      held = null
      continue
    }
    const axis = motions.indexOf(p.wants.motion)
    const tick = late(p.from, after_s.move)
    // Over from one motion to the next: the old one is let go of first.
    if (held !== null && held !== axis) inputs.push([tick - 5, held, 0])
    inputs.push([tick, axis, Math.round((p.wants.slow ? 50 : 90) * p.wants.sense * (wrong ? -1 : 1))])
    held = axis
  }
  return inputs
}
const marked = (course: Course, inputs: LeverInputs, more: { stops?: number[]; latency_s?: number } = {}) =>
  signalMarks(course, motions, { inputs, stops: [], latency_s: 0, ...more })

describe('a guess', () => {
  const guessedAt = (course: Course, which: readonly number[]) => {
    const moves = course.filter(isMove)
    const early = new Set(which.map((i) => moves[i % moves.length]))
    // What is guessed is moved the tick that it is shown, the rest after half a second.
    return answering(course, { move: 0.5, stop: 0.4 }).map(([tick, axis, value]): LeverInputs[number] => {
      const p = course.find((x) => early.has(x) && value !== 0 && tick === x.from + Math.round(0.5 / tick_s))
      return [p ? p.from + 2 : tick, axis, value]
    })
  }
  it('does not count, and comes once more before the end; what is done then changes nothing of what is given', () => {
    fc.assert(
      fc.property(seed, level, fc.uniqueArray(fc.integer({ min: 0, max: 9 }), { maxLength: 4 }), (s, l, which) => {
        const course = signalCourse(s, l, motions)
        const inputs = guessedAt(course, which).sort((a, b) => a[0] - b[0])
        const run = { inputs, stops: [], latency_s: 0 }
        const { guesses } = marked(course, inputs)
        const given = givenAgain(course, motions, run, s)
        expect(given.slice(0, course.length - 1)).toEqual(course.slice(0, -1))
        expect(given.at(-1)).toMatchObject({ signal: 'end', wants: 'nothing' })
        for (const [i, p] of given.entries()) expect(p.from).toBe(i === 0 ? 0 : given[i - 1]?.until)
        const added = given.slice(course.length - 1, -1)
        expect(added.length).toBe(3 * Math.min(3, guesses))
        if (guesses === 0) expect(given).toEqual(course)
        // Answered the second time as one sees it: full marks, as many times asked as counted.
        const known = knownBy(course)
        const later = answering(given, { move: 0.5, stop: 0.4 }).filter(([tick]) => tick >= known)
        const whole = { ...run, inputs: [...inputs, ...later] }
        expect(givenAgain(course, motions, whole, s)).toEqual(given)
        const m = signalMarks(given, motions, whole)
        expect(m.guesses).toBe(guesses)
        expect(m.score).toBe(100)
        expect(m.lasts_s).toBeCloseTo((given.at(-1)?.until ?? 0) * tick_s, 9)
        const counted = m.responses.filter((r) => r.wants === 'move' && r.marks !== null).length
        const slower = given.filter((p) => p.signal === 'slow').length
        expect(counted).toBe(10 - guesses + Math.min(3, guesses) + slower)
      }),
      { numRuns: runs(300, 40) },
    )
  })
})

describe('signals to be answered', () => {
  it('follow one another without a gap, ten motions each to its end, the same for a seed; easier with fewer that ask for nothing', () => {
    fc.assert(
      fc.property(seed, level, (s, l) => {
        const course = signalCourse(s, l, motions)
        expect(signalCourse(s, l, motions)).toEqual(course)
        for (const [i, p] of course.entries()) {
          expect(p.from).toBe(i === 0 ? 0 : course[i - 1]?.until)
          expect(p.until).toBeGreaterThan(p.from)
        }
        expect(course.filter(isMove)).toHaveLength(10)
        // A load is always stopped in the end, and no motion follows itself.
        expect(course.at(-2)?.wants).toBe('stop')
        expect(course.some((p, i) => i > 0 && typeof p.wants === 'object' && p.signal === course[i - 1]?.signal)).toBe(false)
      }),
    )
    const idle = (l: number) =>
      Array.from(
        { length: 200 },
        (_, s) => signalCourse(s, l, motions).filter((p) => p.who === 'other' && p.wants === 'nothing').length,
      ).reduce((a, b) => a + b)
    expect(idle(1)).toBeGreaterThan(2 * idle(0))
    const all = Array.from({ length: 50 }, (_, s) => signalCourse(s, 0.5, motions)).flat()
    for (const signal of [...movesOn(motions).map((m) => m.signal), 'slow', 'stop', 'emergency', 'unknown', 'end'] as const)
      expect(
        all.some((p) => p.signal === signal),
        signal,
      ).toBe(true)
    for (const by of ['hand', 'voice'] as const) expect(all.some((p) => p.by === by && p.who === 'nobody')).toBe(true)
    // First seen, then heard: six motions and four.
    for (const s of [1, 2, 3]) {
      const course = signalCourse(s, 0.5, motions)
      const from = course.findIndex((p) => p.by === 'voice')
      const moved = (part: Course) => part.filter(isMove).length
      expect([moved(course.slice(0, from)), moved(course.slice(from))]).toEqual([6, 4])
      expect(course.slice(from).every((p) => p.by === 'voice')).toBe(true)
      expect(course[from - 1]?.wants).toBe('stop')
    }
  })
  it('by radio are said again and again while they last; silence is a stop after three seconds, sooner is no fault', () => {
    fc.assert(
      fc.property(seed, level, fc.double({ min: 0.2, max: 3, noNaN: true }), (s, l, sooner_s) => {
        const course = signalCourse(s, l, motions)
        for (const p of course) {
          const heard = Array.from({ length: p.until - p.from }, (_, k) => isCalling(p, p.from + k))
          expect(heard.some(Boolean)).toBe(p.by === 'voice' && p.who !== 'nobody')
          expect(heard[0]).toBe(p.by === 'voice' && p.who !== 'nobody')
        }
        const silent = course.filter((p) => p.by === 'voice' && p.who === 'nobody')
        const answered = answering(course, { move: 0.5, stop: 0.4 })
        const letGo = (s_s: number): LeverInputs =>
          answered.map(([tick, axis, value]) => {
            const p = silent.find((x) => tick >= x.from && tick < x.until)
            return [p && value === 0 ? p.from + Math.round(s_s / tick_s) : tick, axis, value]
          })
        expect(marked(course, letGo(sooner_s))).toMatchObject({ passed: true, score: 100 })
        const late = marked(course, letGo(silence_s + 1.6))
        expect(late.passed).toBe(silent.length === 0)
        expect(late.responses.filter((r) => r.fault === 'late-stop')).toHaveLength(silent.length)
      }),
      { numRuns: runs(300, 40) },
    )
  })
  it('answered in time pass with full marks, slower with fewer, and a stop that takes over a second and a half fails', () => {
    const quick = { move: fc.double({ min: 0.2, max: 1.2, noNaN: true }), stop: fc.double({ min: 0.2, max: 0.79, noNaN: true }) }
    fc.assert(
      fc.property(seed, level, fc.record(quick), (s, l, after_s) => {
        const course = signalCourse(s, l, motions)
        const m = marked(course, answering(course, after_s))
        expect(m).toMatchObject({ score: 100, passed: true, guesses: 0 })
        expect(m.worst_s).toBeCloseTo(Math.max(after_s.move, after_s.stop), 1)
        expect(marked(course, answering(course, { ...after_s, stop: 1.2 })).score).toBeLessThan(100)
        const late = marked(course, answering(course, { ...after_s, stop: 1.6 }))
        expect(late.passed).toBe(false)
        expect(late.score).toBeLessThanOrEqual(30)
        expect(signalLessons(late).find((x) => x.point === 'late-stop')?.right).toBe(false)
        expect(marked(course, answering(course, { ...after_s, move: 2.4 })).passed).toBe(false)
      }),
      { numRuns: 60 },
    )
  })
  it('answered the wrong way fail however quick', () => {
    fc.assert(
      fc.property(seed, (s) => {
        const course = signalCourse(s, 0.3, motions)
        const m = marked(course, answering(course, { move: 0.3, stop: 0.3 }, true))
        expect(m.passed).toBe(false)
        expect(m.score).toBeLessThanOrEqual(30)
        expect(m.responses.filter((r) => r.wants === 'move').every((r) => r.fault === 'wrong-motion')).toBe(true)
      }),
      { numRuns: 40 },
    )
  })
  const isChange = (p: Course[number], before: Course[number] | undefined) => isMove(p) && before !== undefined && isMove(before)
  it('changed with no stop between leave as long as an answer may take to let go: who goes on with the old motion fails', () => {
    const course = Array.from({ length: 40 }, (_, s) => signalCourse(s, 0, motions)).find((c) =>
      c.some((p, i) => isChange(p, c[i - 1])),
    )
    const i = course?.findIndex((p, k) => isChange(p, course[k - 1])) ?? -1
    const [before, p] = [course?.[i - 1], course?.[i]]
    if (!course || !before || !p || typeof before.wants !== 'object') throw new Error('no change')
    const { motion, sense } = before.wants
    const axis = motions.indexOf(motion)
    const until = (s: number): LeverInputs => [
      [before.from + 60, axis, 90 * sense],
      [p.from + Math.round(s / tick_s), axis, 0],
    ]
    expect(marked(course, until(2.4)).responses[i]?.fault).toBe('no-answer')
    expect(marked(course, until(2.6)).responses[i]?.fault).toBe('wrong-motion')
  })
  it('to go slower are answered with less of the same lever; what goes slowly already, and what is let go of, is no fault', () => {
    fc.assert(
      fc.property(seed, level, fc.integer({ min: 16, max: 69 }), (s, l, gently) => {
        const course = signalCourse(s, l, motions)
        const slow = [...course.entries()].filter(([, p]) => p.signal === 'slow')
        for (const [i, p] of slow) {
          const before = course[i - 1]
          if (typeof p.wants !== 'object' || typeof before?.wants !== 'object') throw new Error('nothing moves')
          expect(p.wants).toEqual({ ...before.wants, slow: true })
        }
        // Driven at less than half all the time there is nothing to answer; with all of it kept on it is not answered.
        const right = answering(course, { move: 0.5, stop: 0.4 })
        const of = (u: number) =>
          right.map(([tick, axis, v]): LeverInputs[number] => [tick, axis, v === 0 ? 0 : Math.sign(v) * u])
        const faults = (inputs: LeverInputs) => slow.map(([i]) => marked(course, inputs).responses[i])
        for (const r of faults(of(gently))) expect(r).toMatchObject({ marks: null, guessed: false, fault: null })
        expect(marked(course, of(gently))).toMatchObject({ passed: true, score: 100 })
        for (const r of faults(of(100))) expect(r).toMatchObject({ marks: 0, fault: 'no-answer' })
        for (const r of faults(right)) expect(r?.marks).toBe(1)
      }),
      { numRuns: runs(300, 40) },
    )
  })
  it('are asked of a boom where there is one, and of nothing that a machine has not', () => {
    const asked = (of: string[]) =>
      new Set(
        Array.from({ length: 60 }, (_, s) => signalCourse(s, 0.5, of))
          .flat()
          .map((p) => p.signal),
      )
    const base = ['hoist', 'lower', 'right', 'left']
    for (const [of, more] of [
      [['slew', 'hoist'], []],
      [
        ['slew', 'trolley', 'hoist'],
        ['out', 'in'],
      ],
      [
        ['slew', 'luff', 'hoist'],
        ['boom-up', 'boom-down'],
      ],
      [motions, ['boom-up', 'boom-down', 'out', 'in']],
    ] as const) {
      const all = asked([...of])
      expect(['boom-up', 'boom-down', 'out', 'in', ...base].filter((x) => all.has(x as never)).sort()).toEqual(
        [...base, ...more].sort(),
      )
    }
  })
  it('kept still through, held all the time, or answered before anybody could see them give next to nothing', () => {
    fc.assert(
      fc.property(seed, level, fc.constantFrom(0, 3), fc.constantFrom(-100, 8, 100), (s, l, axis, value) => {
        const course = signalCourse(s, l, motions)
        const nothing = marked(course, [])
        expect(nothing).toMatchObject({ score: 0, passed: false, guesses: 0 })
        expect(signalLessons(nothing).filter((x) => x.right)).toEqual([])
        expect(marked(course, [[1, axis, value]]).score).toBeLessThanOrEqual(30)
        const early = marked(course, answering(course, { move: 0.1, stop: 0.1 }))
        expect(early).toMatchObject({ score: 0, passed: false })
        expect(early.guesses).toBeGreaterThan(10)
      }),
      { numRuns: 60 },
    )
  })
  it('of somebody else, or never agreed, are no signals: who moves fails, and who stops for one never does', () => {
    const course = signalCourse(3, 1, motions)
    const inputs = answering(course, { move: 0.5, stop: 0.4 })
    for (const [who, signal, fault] of [
      ['other', null, 'obeyed-other'],
      ['signaller', 'unknown', 'never-agreed'],
      ['signaller', 'attention', 'without-signal'],
    ] as const) {
      const all = Array.from({ length: 60 }, (_, s) => signalCourse(s, 1, motions))
      const c = all.find((x) => x.some((p) => p.wants === 'nothing' && p.who === who && (signal === null || p.signal === signal)))
      const p = c?.find((x) => x.wants === 'nothing' && x.who === who && (signal === null || x.signal === signal))
      if (!c || !p) throw new Error(`no ${fault}`)
      const obeyed: LeverInputs = [
        [p.from + 60, 3, 90],
        [p.from + 90, 3, 0],
      ]
      const m = marked(
        c,
        [...answering(c, { move: 0.5, stop: 0.4 }), ...obeyed].sort((a, b) => a[0] - b[0]),
      )
      expect(m.responses[c.indexOf(p)]?.fault).toBe(fault)
      expect(m.passed).toBe(false)
      expect(m.score).toBeLessThanOrEqual(30)
    }
    // The emergency stop pressed where nothing asks for it.
    const idle = course.find((p) => p.wants === 'nothing')
    expect(marked(course, inputs, { stops: [(idle?.from ?? 0) + 3] })).toMatchObject({ passed: true, score: 100 })
  })
  it('are stopped for by the emergency stop as by letting go; the device’s own delay is taken off', () => {
    const course = signalCourse(11, 0.2, motions)
    const stopping = course.filter((p) => p.wants === 'stop')
    const inputs = answering(course, { move: 0.5, stop: 1.9 })
    const m = marked(course, inputs, { stops: stopping.map((p) => p.from + 60) })
    // On the radio silence alone leaves three seconds more.
    const told = (x: (typeof m.responses)[number]) => x.wants === 'stop' && !(x.by === 'voice' && x.who === 'nobody')
    for (const r of m.responses.filter(told)) expect(r.after_s).toBeCloseTo(0.5, 6)
    const slow = marked(course, inputs, { stops: stopping.map((p) => p.from + 60), latency_s: 0.08 })
    for (const r of slow.responses.filter(told)) expect(r.after_s).toBeCloseTo(0.42, 6)
  })
  it('are practised on every machine with levers for them, and refused where the machine is another now', () => {
    expect(demoMachines.filter((id) => canSignal(demoMachine(id)))).toEqual(
      demoMachines.filter((id) => planesOn(demoMachine(id)).includes('across')),
    )
    const tern = demoMachine('tern')
    const run = signalRun.parse({
      format: 'geolabe.practice/1',
      id: '6e6ad3c6-9d43-4c0c-9d4a-0a8d3a3b5c11',
      game: 'signal',
      version: signalVersion,
      machine: { id: 'tern', revision: tern.revision },
      seed: 5,
      level: 0.2,
      inputs: [],
      stops: [],
      latency_s: 0.02,
    })
    const code = (more: object) => {
      try {
        markSignals(tern, { ...run, ...more })
      } catch (e) {
        return (e as { code: string }).code
      }
      return 'kept'
    }
    expect(code({})).toBe('kept')
    expect(code({ version: 9 })).toBe('version-unknown')
    expect(code({ machine: { id: 'tern', revision: 99 } })).toBe('machine-changed')
    expect(code({ inputs: [[5, 7, 1]] })).toBe('axis-unknown')
    expect(code({ inputs: [[999_999, 0, 1]] })).toBe('inputs-order')
    expect(signalRun.safeParse({ ...run, latency_s: 0.2 }).success).toBe(false)
  })
})

describe('signals given', () => {
  const answers = (seed: number, level: number) => situations(seed, level).map(nextSignal)
  /** What somebody gives who knows what is next, so long after each is seen. */
  const giving = (seed: number, level: number, after_s: number, pick: (s: Situation, i: number) => SignalId | null) => {
    const all = situations(seed, level)
    const gave: [number, SignalId][] = []
    for (const i of all.keys()) {
      const shown = shownBy(all, gave)[i]
      const signal = shown && pick(shown.situation, i)
      if (shown && signal) gave.push([shown.from + Math.round(after_s * 120), signal])
    }
    return gave
  }
  const run = (seed: number, level: number, gave: [number, SignalId][]): SignalRun => ({
    format: 'geolabe.practice/1',
    id: '00000000-0000-4000-8000-000000000002',
    game: 'signal',
    version: signalVersion,
    machine: { id: tern.id, revision: tern.revision },
    seed,
    level,
    inputs: [],
    stops: [],
    latency_s: 0,
    gave,
  })
  it('are asked for as often as each is wanted, whatever the seed and the level, and a seed is the same again', () => {
    fc.assert(
      fc.property(fc.nat({ max: 1e6 }), fc.constantFrom(0, 0.3, 0.7, 1), (seed, level) => {
        const all = answers(seed, level)
        const count = (s: SignalId) => all.filter((x) => x === s).length
        expect([all.length, count('stop'), count('emergency'), count('end'), count('attention')]).toEqual([15, 3, 2, 1, 1])
        expect(answers(seed, level)).toEqual(all)
      }),
      { numRuns: runs(1000, 60) },
    )
  })
  it('seen in a mirror ask for the other side, and for the same of everything else', () => {
    const mirrored = (s: Situation): Situation => {
      const at = <T extends { across_m: number }>(x: T): T => ({ ...x, across_m: -x.across_m })
      const going = s.going === 'left' ? 'right' : s.going === 'right' ? 'left' : s.going
      const person_m = s.person_m === null ? null : -s.person_m
      return { ...s, load: at(s.load), place: at(s.place), wall: s.wall && at(s.wall), going, person_m }
    }
    const other: Partial<Record<SignalId, SignalId>> = { left: 'right', right: 'left' }
    for (let seed = 0; seed < 40; seed++)
      for (const s of situations(seed, 0.6)) {
        const right = nextSignal(s)
        expect(nextSignal(mirrored(s))).toBe((right && other[right]) ?? right)
      }
  })
  it('followed one by one bring a load over what stands there and down to its place', () => {
    const step: Record<string, [number, number]> = { hoist: [0, 1], lower: [0, -1], right: [1, 0], left: [-1, 0] }
    fc.assert(
      fc.property(fc.nat({ max: 1e6 }), fc.nat({ max: 14 }), (seed, i) => {
        let s: Situation = {
          ...(situations(seed, 0.8)[i] as Situation),
          going: null,
          person_m: null,
          watching: true,
          slack: false,
        }
        for (let n = 0; n < 4000; n++) {
          const signal = nextSignal(s)
          if (signal === 'lower' && s.load.height_m <= s.place.height_m) return
          if (s.going === null) s = { ...s, going: signal as Situation['going'] }
          else if (signal !== null) s = { ...s, going: null }
          else {
            const [dx, dz] = step[s.going] ?? [0, 0]
            s = { ...s, load: { across_m: s.load.across_m + dx * 0.05, height_m: s.load.height_m + dz * 0.05 } }
          }
          const { wall, load } = s
          if (wall && Math.abs(wall.across_m - load.across_m) < 0.1) expect(load.height_m).toBeGreaterThan(wall.top_m)
        }
        throw new Error('not set down')
      }),
      { numRuns: runs(300, 40) },
    )
  })
  it('pass whoever knows them; slowly given they count less, one wrong fails, and a stop for nothing is no fault', () => {
    const knows = (after_s: number) => markSignals(tern, run(7, 0.5, giving(7, 0.5, after_s, nextSignal)))
    expect(knows(0.9)).toMatchObject({ way: 'given', passed: true, score: 100 })
    expect(knows(2.2).score).toBeLessThan(100)
    const wrong = markSignals(
      tern,
      run(
        7,
        0.5,
        giving(7, 0.5, 0.9, (s, i) => (i === 3 ? (nextSignal(s) === 'hoist' ? 'lower' : 'hoist') : nextSignal(s))),
      ),
    )
    expect(wrong).toMatchObject({ passed: false })
    expect(wrong.responses[3]?.fault).toBe('wrong-signal')
    expect(wrong.score).toBeLessThanOrEqual(30)
    const stops = markSignals(
      tern,
      run(
        7,
        0.5,
        giving(7, 0.5, 0.9, () => 'stop'),
      ),
    )
    expect(stops.responses.filter((r) => r.fault === 'wrong-signal')).toEqual([])
    expect(signalLessons(stops)).toEqual([])
  })
  it('give nothing for one signal always, for none, or for any by lot', () => {
    for (let seed = 0; seed < 30; seed++) {
      for (const id of signalIds)
        expect(
          markSignals(
            tern,
            run(
              seed,
              0.5,
              giving(seed, 0.5, 0.5, () => id),
            ),
          ).score,
        ).toBeLessThanOrEqual(30)
      expect(markSignals(tern, run(seed, 0.5, [])).score).toBe(0)
      let a = seed
      const lot = () => {
        a = (a * 1103515245 + 12345) % 2147483648
        return signalIds[Math.floor((a / 2147483648) * signalIds.length)] ?? 'stop'
      }
      expect(markSignals(tern, run(seed, 0.5, giving(seed, 0.5, 0.5, lot))).score).toBeLessThanOrEqual(30)
    }
  })
  it('are refused with levers moved, or going back in time', () => {
    const gave = giving(7, 0.5, 0.9, nextSignal)
    expect(() => markSignals(tern, { ...run(7, 0.5, gave), inputs: [[3, 0, 90]] })).toThrow(/moves no lever/)
    expect(() => markSignals(tern, run(7, 0.5, gave.toReversed()))).toThrow(/forward in time/)
  })
})

describe('whoever signals', () => {
  const seeds = Array.from({ length: 2000 }, (_, i) => i)
  it('does it as agreed where it is easy; further on some with the left hand, some in gloves, the same for a seed everywhere', () => {
    for (const seed of seeds) expect(signallerFor(seed, 0.29)).toEqual({ leftHanded: false, gloved: false })
    const all = seeds.map((seed) => signallerFor(seed, 0.5))
    expect(all).toEqual(seeds.map((seed) => signallerFor(seed, 1)))
    const share = (of: (w: (typeof all)[number]) => boolean) => all.filter(of).length / all.length
    expect(Math.abs(share((w) => w.leftHanded) - 0.4)).toBeLessThan(0.04)
    expect(Math.abs(share((w) => w.gloved) - 0.5)).toBeLessThan(0.04)
    expect(Math.abs(share((w) => w.gloved && w.leftHanded) - 0.2)).toBeLessThan(0.04)
  })
  it('points to a side with the arm of that side, whichever hand they write with', () => {
    expect(drawnSignals.filter((s) => !isByEitherArm(s))).toEqual(
      expect.arrayContaining(['left', 'right', 'in', 'out', 'emergency']),
    )
    expect(drawnSignals.filter(isByEitherArm)).toEqual(['hoist', 'lower', 'stop', 'boom-up', 'boom-down'])
  })
})
