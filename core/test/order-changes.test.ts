import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Need, orderChanges, type ProcedureFile, procedureFile } from '../src'
import { demoMachine, demoMachines } from './demo'
import { runs } from './runs'

const files = demoMachines.map((id) => demoMachine(id).procedures)
const copy = (f: ProcedureFile): ProcedureFile => structuredClone(f)
const anyFile = fc.constantFrom(...files)

/** Every leaf of a value: where it is, and what puts another there. */
function* leaves(v: unknown): Generator<{ value: unknown; put: (x: unknown) => void }> {
  if (typeof v !== 'object' || v === null) return
  for (const [k, x] of Object.entries(v)) {
    if (typeof x === 'object') yield* leaves(x)
    else yield { value: x, put: (y) => Object.assign(v, { [k]: y }) }
  }
}
const other = (v: unknown) => (typeof v === 'number' ? v + 1 : typeof v === 'boolean' ? !v : `${String(v)} otherwise`)

describe('what a second person is shown of an order that somebody changed', () => {
  it('is nothing where both say the same', () => {
    // The records keep fields in an order of their own.
    const turned = (v: unknown): unknown =>
      Array.isArray(v)
        ? v.map(turned)
        : typeof v === 'object' && v !== null
          ? Object.fromEntries(
              Object.entries(v)
                .reverse()
                .map(([k, x]) => [k, turned(x)]),
            )
          : v
    for (const f of files) {
      expect(orderChanges(f, procedureFile.parse(copy(f)))).toEqual([])
      expect(orderChanges(f, turned(f) as ProcedureFile)).toEqual([])
    }
  })

  it('is something, whatever single word, figure or switch reads otherwise', () => {
    fc.assert(
      fc.property(anyFile, fc.nat(), (f, n) => {
        const after = copy(f)
        const all = [...leaves(after)]
        const leaf = all[n % all.length]
        leaf?.put(other(leaf.value))
        expect(orderChanges(f, after).length).toBeGreaterThan(0)
      }),
      { numRuns: runs(2000, 150) },
    )
  })

  it('names the need that is gone, and the step that it was of', () => {
    fc.assert(
      fc.property(anyFile, fc.nat(), (f, n) => {
        const after = copy(f)
        const having = after.procedures.flatMap((p) => p.steps).filter((s) => s.needs.length > 0)
        const s = having[n % having.length]
        const gone: Need | undefined = s?.needs.splice(n % s.needs.length, 1)[0]
        const what = { what: 'gone', part: 'need', name: gone?.because, within: s?.label }
        expect(orderChanges(f, after)).toEqual([expect.objectContaining(what)])
      }),
      { numRuns: runs(2000, 150) },
    )
  })

  it('is one step that moved, where one was put elsewhere in its run', () => {
    fc.assert(
      fc.property(anyFile, fc.nat(), fc.nat(), fc.nat(), (f, n, from, to) => {
        const after = copy(f)
        const p = after.procedures[n % after.procedures.length]
        if (!p || p.steps.length < 2) return
        const [a, b] = [from % p.steps.length, to % p.steps.length]
        p.steps.splice(b, 0, ...p.steps.splice(a, 1))
        const found = orderChanges(f, after)
        expect(found.length).toBe(a === b ? 0 : 1)
        if (a !== b) expect(found[0]).toMatchObject({ what: 'moved', part: 'step', within: p.label })
      }),
      { numRuns: runs(2000, 150) },
    )
  })

  it('tells a step that went into another run as moved, one left out as gone, one put in as new', () => {
    const f = files.find((x) => x.procedures.length > 1)
    const [before, after] = [copy(f as ProcedureFile), copy(f as ProcedureFile)]
    const [first, second] = after.procedures
    const taken = first?.steps.shift()
    if (taken) second?.steps.push(taken)
    expect(orderChanges(before, after)).toEqual([
      expect.objectContaining({ what: 'moved', part: 'step', name: taken?.label, within: second?.label }),
    ])
    second?.steps.pop()
    expect(orderChanges(before, after)).toEqual([
      expect.objectContaining({ what: 'gone', part: 'step', name: taken?.label, within: first?.label }),
    ])
    expect(orderChanges(after, before)).toEqual([expect.objectContaining({ what: 'new', part: 'step', name: taken?.label })])
  })

  it('begins with what is gone', () => {
    const after = copy(files[0] as ProcedureFile)
    after.invariants.pop()
    for (const p of after.procedures) p.label = `${p.label}, by the house`
    const found = orderChanges(files[0] as ProcedureFile, after).map((c) => c.what)
    expect(found[0]).toBe('gone')
    expect(found.slice(1).every((w) => w === 'changed')).toBe(true)
  })
})
