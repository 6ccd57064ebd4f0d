import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  answerTo,
  canSequence,
  drillAfter,
  keep,
  type Machine,
  markSequence,
  marksOfDrill,
  offerAt,
  permitted,
  type SequenceAct,
  SequenceDrill,
  type SequenceRun,
  sequenceCourse,
  sequenceLessons,
  sequencePoints,
  sequenceRun,
  sequenceVersion,
  statesOfCourse,
  type TimedAct,
  tick_s,
} from '../src'
import { inPractice } from '../src/sequence/walks'
import { demoMachine, demoMachines } from './demo'
import { runs } from './runs'

const anySeed = fc.integer({ min: 0, max: 2 ** 32 - 1 })
const anyLevel = fc.double({ min: 0, max: 1, noNaN: true })
const ticksAnAct = Math.round(3 / tick_s)

const runOf = (m: Machine, seed: number, level: number, acts: readonly SequenceAct[]): SequenceRun => ({
  format: 'geolabe.practice/1',
  id: '00000000-0000-4000-8000-000000000001',
  game: 'sequence',
  version: sequenceVersion,
  machine: { id: m.id, revision: m.revision },
  seed,
  level,
  order: 0,
  acts: acts.map((a, i): TimedAct => [(i + 1) * ticksAnAct, a]),
})

/** A course kept by the reference, and what it came to. */
function kept(m: Machine, seed: number, level: number, looks: boolean) {
  const acts = keep(new SequenceDrill(m, sequenceCourse(m, seed, level), seed), looks)
  const run = runOf(m, seed, level, acts)
  return { run, marks: markSequence(m, run) }
}

describe.each(demoMachines)('an order of work of %s, practised', (id) => {
  const m = demoMachine(id)

  it('comes to its end with everything kept and met from every seed, whoever looks before a step rests on what was said', () => {
    expect(canSequence(m)).toBe(true)
    fc.assert(
      fc.property(anySeed, anyLevel, (seed, level) => {
        const { marks } = kept(m, seed, level, true)
        expect(marks).toMatchObject({ score: 100, passed: true, ended: true, tries: [], overrides: 0 })
        expect(marks.met.every((x) => x.after_s !== null && !x.wrongFirst)).toBe(true)
      }),
      { numRuns: runs(300, 4) },
    )
  })

  it('goes wrong where something is not as it was said, for whoever takes everybody’s word', () => {
    fc.assert(
      fc.property(anySeed, anyLevel, (seed, level) => {
        const { marks } = kept(m, seed, level, false)
        expect(marks.passed).toBe(!marks.untold)
        expect(marks.tries.some((x) => x.trusted)).toBe(marks.untold)
      }),
      { numRuns: runs(300, 4) },
    )
  })

  it('offers what may be done now, among what may not, until its end', () => {
    const seed = 11
    const course = sequenceCourse(m, seed, 1)
    const { run } = kept(m, seed, 1, true)
    const drill = new SequenceDrill(m, course, seed)
    for (const act of run.acts) {
      if (act[1].do === 'step') {
        const offered = offerAt(course, drill.told, seed, drill.taken)
        const may = offered.filter((s) => 'ok' in permitted(course.file, drill.told, s.id, inPractice))
        expect(may.length).toBeGreaterThan(0)
        expect(offered.length).toBeGreaterThan(may.length)
        expect(new Set(offered.map((s) => s.label)).size).toBe(offered.length)
      }
      drill.do(act)
    }
    expect(drill.over).toBe(true)
  })

  it('gives no more than thirty for standing still, calling all the time, trying by lot, leaving', () => {
    fc.assert(
      fc.property(fc.nat(), fc.nat(), (seed, lot) => {
        const course = sequenceCourse(m, seed, 0.5)
        const steps = course.file.procedures.flatMap((p) => p.steps)
        const drill = new SequenceDrill(m, course, seed)
        const acts: TimedAct[] = []
        for (let i = 0; i < 60 && !drill.over; i++) {
          const offered = offerAt(course, drill.told, seed, drill.taken)
          const of = (lot * 7919 + i * 104729) % 1000
          const any = offered[of % Math.max(1, offered.length)] ?? steps[of % steps.length]
          const act: TimedAct = [i * ticksAnAct, of % 5 === 0 ? { do: 'call' } : { do: 'step', step: any?.id ?? '' }]
          acts.push(act)
          drill.do(act)
        }
        expect(marksOfDrill(drill, 0).passed).toBe(false)
        expect(marksOfDrill(drill, 0).score).toBeLessThanOrEqual(30)
        const still = drillAfter(m, { seed, level: 0.5, acts: [0, 1, 2].map((n): TimedAct => [n, { do: 'call' }]) })
        expect(marksOfDrill(still, 0).score).toBe(0)
        expect(marksOfDrill(drillAfter(m, { seed, level: 0.5, acts: [] }), 0)).toMatchObject({ score: 0, passed: false })
      }),
      { numRuns: runs(300, 2) },
    )
  })
})

/** Courses of a machine in which something of a kind comes. */
function courseWith(m: Machine, kind: string, level = 1) {
  for (let seed = 1; seed < 400; seed++) {
    const course = sequenceCourse(m, seed, level)
    if (course.faults.some((f) => f.kind === kind)) return { seed, level, course }
  }
  throw new Error(`no course with ${kind}`)
}

describe('what goes wrong in an order of work', () => {
  const m = demoMachine('tern')

  /** Acts of the reference until something stands in the way. */
  function until(kind: string) {
    const { seed, level, course } = courseWith(m, kind)
    const drill = new SequenceDrill(m, course, seed)
    const acts = keep(new SequenceDrill(m, course, seed), true)
    const before: SequenceAct[] = []
    for (const a of acts) {
      if (drill.active?.cue.kind === kind) break
      before.push(a)
      drill.do([before.length * ticksAnAct, a])
    }
    expect(drill.active?.cue.kind).toBe(kind)
    return { seed, level, drill, rest: acts.slice(before.length), before }
  }
  const marked = (seed: number, level: number, acts: readonly SequenceAct[]) => markSequence(m, runOf(m, seed, level, acts))

  it.each(['stop', 'lost', 'symptom', 'unlisted', 'emergency'] as const)('%s: met first, or it fails', (kind) => {
    const { seed, level, drill, before, rest } = until(kind)
    const [step] = offerAt(drill.course, drill.told, seed, drill.taken)
    const wrong: SequenceAct = { do: 'step', step: step?.id ?? drill.course.steps[0]?.id ?? '' }
    const right = marked(seed, level, [...before, ...rest])
    const went = marked(seed, level, [...before, wrong, ...rest])
    expect(right).toMatchObject({ score: 100, passed: true })
    expect(went).toMatchObject({ passed: false })
    expect(went.score).toBe(right.score - 20)
    expect(went.met.find((x) => x.kind === kind)?.wrongFirst).toBe(true)
    expect(sequenceLessons(went).find((l) => l.point === kind)?.right).toBe(false)
    expect(sequenceLessons(right).every((l) => l.right)).toBe(true)
    // Called: never a fault, but in an emergency, which has its card.
    const called = marked(seed, level, [...before, { do: 'call' }, ...rest])
    expect(called.passed).toBe(kind !== 'emergency')
  })

  it('takes the lines of a card and of a reset only in their order', () => {
    for (const kind of ['stop', 'emergency'] as const) {
      const { drill } = until(kind)
      const answer = answerTo(drill)
      if (answer) drill.do([1, answer])
      const now = drill.following
      if (!now || now.of === 'way') throw new Error('nothing to follow')
      const last = now.left.at(-1) ?? ''
      if (now.left.length > 1) {
        expect(drill.do([2, { do: 'next', words: last }])).toEqual({ of: 'slip' })
        expect(drill.following).toEqual(now)
      }
      expect([...now.offered]).toEqual(expect.arrayContaining([...now.left]))
      for (const words of now.left) drill.do([3, { do: 'next', words }])
      expect(drill.following).toBeNull()
      expect(drill.over).toBe(kind === 'emergency')
    }
  })

  it('takes points for time only where something had come, and no more than ten', () => {
    const { seed, level, before, rest } = until('stop')
    const acts = [...before, ...rest]
    const late = (s: number) =>
      markSequence(m, {
        ...runOf(m, seed, level, acts),
        acts: runOf(m, seed, level, acts).acts.map(([tick, a], i): TimedAct => [i < before.length ? tick : tick + s / tick_s, a]),
      }).score
    expect(late(5)).toBe(100)
    expect(late(9)).toBeCloseTo(98, 9)
    expect(late(600)).toBe(90)
  })

  it('comes no further by doing and undoing: what ends it is only met once the rest is done', () => {
    for (const kind of ['emergency', 'symptom'] as const) {
      const { seed, course } = courseWith(m, kind)
      const drill = new SequenceDrill(m, course, seed)
      const last = course.faults.at(-1)
      if (!last || last.after < course.steps.length - 1) continue
      const all = course.file.procedures.flatMap((p) => p.steps)
      const own = new Set(course.steps.slice(0, 2).map((s) => s.id))
      for (let i = 0; i < 200; i++) {
        const answer = answerTo(drill)
        if (answer) drill.do([i, answer])
        else {
          for (const s of drill.toLookAt) drill.do([i, { do: 'look', state: s.id }])
          const step = all.find(
            (s, k) =>
              (own.has(s.id) || !course.steps.includes(s)) &&
              k % 7 === i % 7 &&
              'ok' in permitted(course.file, drill.told, s.id, inPractice),
          )
          if (step) drill.do([i, { do: 'step', step: step.id }])
        }
      }
      expect(drill.taken).toBeLessThanOrEqual(2)
      expect(drill.over).toBe(false)
    }
  })

  it('counts an override as what it is not for', () => {
    const { seed, level } = courseWith(m, 'lost')
    const acts = keep(new SequenceDrill(m, sequenceCourse(m, seed, level), seed), true)
    const id = m.procedures.overrides[0]?.id ?? ''
    expect(marked(seed, level, [{ do: 'look', state: 'none' }, { do: 'override', override: id }, ...acts])).toMatchObject({
      score: expect.closeTo(85, 9),
      passed: false,
      overrides: 1,
    })
  })

  it('shows by looking what is so, whatever was said', () => {
    const { seed, course } = courseWith(m, 'untrue')
    const drill = new SequenceDrill(m, course, seed)
    const lie = course.faults.find((f) => f.kind === 'untrue')
    if (lie?.kind !== 'untrue') throw new Error('no lie')
    expect(drill.told.states[lie.state]?.value).not.toBe(lie.is)
    expect(statesOfCourse(course).map((s) => s.id)).toContain(lie.state)
    expect(drill.do([1, { do: 'look', state: lie.state }])).toMatchObject({ of: 'seen', is: lie.is })
    expect(drill.told.states[lie.state]?.value).toBe(lie.is)
    expect(drill.truth).toEqual(drill.told)
  })

  it('says the same of the same acts, and refuses what is no run', () => {
    const { run } = kept(m, 7, 0.6, true)
    expect(markSequence(m, structuredClone(run))).toEqual(markSequence(m, run))
    expect(sequenceRun.parse(JSON.parse(JSON.stringify(run)))).toEqual(run)
    const code = (r: SequenceRun, of = m) => {
      try {
        markSequence(of, r)
        return null
      } catch (e) {
        return (e as { code: string }).code
      }
    }
    expect(code({ ...run, version: 9 })).toBe('version-unknown')
    expect(code({ ...run, machine: { ...run.machine, revision: 99 } })).toBe('machine-changed')
    expect(code({ ...run, acts: [...run.acts].reverse() })).toBe('inputs-order')
    expect(code({ ...run, acts: [[200_000, { do: 'call' }]] })).toBe('inputs-too-long')
    expect(code(run, { ...m, procedures: { ...m.procedures, procedures: [] } })).toBe('no-course')
    for (const acts of [
      [[0, { do: 'fly' }]],
      [[0.5, { do: 'call' }]],
      [[-1, { do: 'call' }]],
      Array(601).fill([0, { do: 'call' }]),
    ])
      expect(sequenceRun.safeParse({ ...run, acts }).success).toBe(false)
  })

  it('takes any acts without coming apart, and never gives a pass for nonsense', () => {
    const any = fc.oneof(
      fc.constantFrom<SequenceAct>(
        { do: 'call' },
        { do: 'see' },
        { do: 'lost', why: 'sight' },
        { do: 'emergency', card: 'fire' },
      ),
      fc.string({ minLength: 1, maxLength: 12 }).map((words): SequenceAct => ({ do: 'next', words })),
      fc.string({ minLength: 1, maxLength: 12 }).map((state): SequenceAct => ({ do: 'look', state })),
      fc
        .constantFrom(...m.procedures.procedures.flatMap((p) => p.steps.map((s) => s.id)))
        .map((step): SequenceAct => ({ do: 'step', step })),
      fc.constantFrom(...m.procedures.stops.map((s) => s.id)).map((stop): SequenceAct => ({ do: 'stop', stop })),
    )
    fc.assert(
      fc.property(fc.nat(50), fc.array(any, { minLength: 20, maxLength: 60 }), (seed, acts) => {
        const marks = marked(seed, 0.5, acts)
        expect(marks.score).toBeGreaterThanOrEqual(0)
        expect(marks.score).toBeLessThanOrEqual(100)
        expect(marks.passed && marks.tries.some((x) => x.grave)).toBe(false)
        expect(sequenceLessons(marks).every((l) => sequencePoints.includes(l.point))).toBe(true)
      }),
      { numRuns: runs(2000, 40) },
    )
  })
})
