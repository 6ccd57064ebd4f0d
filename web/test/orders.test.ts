import { orderChanges, type ProcedureFile, stepsOfFile } from '@geolabe/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readMachineFile } from '../../server/src/demo/files'
import {
  asFile,
  atOf,
  faultOf,
  fromFile,
  newNeed,
  orderPartNames,
  partAtOf,
  stepAt,
  withMoved,
  withNewPart,
  withNewStep,
  withoutPart,
  withoutStep,
  withPart,
  withStep,
} from '../src/orders/draft'

const files = ['dipper', 'tern', 'bittern', 'kittiwake'].map((id) => readMachineFile(id).procedures)
const anyAt = fc
  .tuple(fc.constantFrom(...files), fc.nat(), fc.nat())
  .map(([file, p, s]): { file: ProcedureFile; at: { procedure: number; step: number } } => {
    const procedure = p % file.procedures.length
    return { file, at: { procedure, step: s % (file.procedures[procedure]?.steps.length ?? 1) } }
  })

describe('an order as it is being written', () => {
  it('as an open file and read again says the same', () => {
    for (const f of files) {
      const read = fromFile(asFile('tern', f))
      expect(read.machine).toBe('tern')
      expect(orderChanges(f, read.file)).toEqual([])
    }
  })

  it('a step moved and moved back is where it was; at an end it stays', () => {
    fc.assert(
      fc.property(anyAt, fc.constantFrom<1 | -1>(1, -1), ({ file, at }, by) => {
        const there = withMoved(file, at, by)
        expect(stepAt(there.file, there.at)).toEqual(stepAt(file, at))
        const moved = there.at.step !== at.step
        expect(moved).toBe(stepAt(file, { ...at, step: at.step + by }) !== undefined)
        if (!moved) expect(there.file).toBe(file)
        else expect(withMoved(there.file, there.at, by === 1 ? -1 : 1).file).toEqual(file)
      }),
    )
  })

  it('a new step stands after the one chosen, reads, and taken out leaves what was', () => {
    fc.assert(
      fc.property(anyAt, ({ file, at }) => {
        const more = withNewStep(withNewStep(file, at, 'One').file, at, 'Two')
        expect(faultOf(more.file)).toBeNull()
        expect(stepAt(more.file, more.at)?.label).toBe('Two')
        expect(new Set(stepsOfFile(more.file).map((s) => s.id)).size).toBe(stepsOfFile(file).length + 2)
        expect(withoutStep(withoutStep(more.file, more.at), more.at)).toEqual(file)
      }),
      { numRuns: 40 },
    )
  })

  it('says the first thing that does not read, and in which step it is', () => {
    const [file] = files as [ProcedureFile]
    const at = { procedure: 1, step: 2 }
    expect(faultOf(file)).toBeNull()
    const nameless = faultOf(withStep(file, at, { label: '' }))
    expect(atOf(nameless?.path ?? '')).toEqual(at)
    const step = stepAt(file, at)
    if (!step) throw new Error('no such step')
    const unsaid = faultOf(withStep(file, at, { needs: [...step.needs, newNeed(file, step.needs)] }))
    expect([atOf(unsaid?.path ?? ''), unsaid?.words.startsWith(step.label)]).toEqual([at, true])
    const nowhere = faultOf(withStep(file, at, { sets: [{ state: 'nowhere', to: 'on' }] }))
    expect(nowhere?.words).toContain('There is no state “nowhere” in this file.')
  })

  it('finds the step of a path, and none where it leads elsewhere', () => {
    expect(atOf('procedures.2.steps.13.needs.0')).toEqual({ procedure: 2, step: 13 })
    for (const path of ['procedures.2', 'invariants.3', '', 'file.procedures.1.steps.1']) expect(atOf(path)).toBeNull()
  })

  it('a rule, state, stop, override or order put in reads, is seen as one change, and taken out leaves what was', () => {
    fc.assert(
      fc.property(fc.constantFrom(...files), fc.constantFrom(...orderPartNames), (file, of) => {
        const { file: more, at } = withNewPart(file, of, 'Written anew')
        expect(faultOf(more)).toBeNull()
        expect(new Set(orderChanges(file, more).map((c) => c.what))).toEqual(new Set(['new']))
        expect(withoutPart(more, at)).toEqual(file)
        const [first] = file[of]
        if (first) expect(orderChanges(file, withPart(file, of, 0, first))).toEqual([])
        // What it lacks is found where it stands.
        const part = more[of][at.at]
        if (!part) throw new Error('nothing put in')
        const path = faultOf(withPart(more, of, at.at, { ...part, [of === 'invariants' ? 'because' : 'label']: '' }))?.path ?? ''
        expect(partAtOf(path)).toEqual(at)
      }),
    )
    expect(partAtOf('procedures.2.steps.13.needs.0')).toBeNull()
    expect(partAtOf('posts.1')).toBeNull()
  })

  it('refuses what is no order with what is wrong', () => {
    expect(() => fromFile('{')).toThrow(SyntaxError)
    expect(() => fromFile('{"format":"geolabe.procedure/1","machine":"tern","procedures":[]}')).toThrow()
    const [file] = files as [ProcedureFile]
    const used = { format: 'geolabe.procedure/1', machine: 'tern', ...file, procedures: [{ steps: [{ use: 'secure' }] }] }
    expect(() => fromFile(JSON.stringify(used))).toThrow('There is no piece “secure”.')
  })
})
