import { describe, expect, it } from 'vitest'
import { isRefusal, type ProcedureSource, procedurePieces, procedureSource, Refusal, writtenFlat } from '../src'

const one = { id: 'one', label: 'One' }
const source = (more: object): ProcedureSource =>
  procedureSource.parse({ format: 'geolabe.procedure/1', machine: 'm', procedures: [{ id: 'p', steps: [one] }], ...more })
const pieces = (all: object[]) => procedurePieces.parse({ format: 'geolabe.procedure-pieces/1', pieces: all })
const none = pieces([])

/** What writing it out is refused with; it has to come at once, not when the memory is full. */
function refusedWith(s: ProcedureSource, p = none): string {
  try {
    writtenFlat(s, p)
  } catch (e) {
    if (e instanceof Refusal) return e.code
    throw e
  }
  return 'written'
}
const steps = (...of: object[]) => ({ procedures: [{ id: 'p', steps: of }] })
const sixty = Array.from({ length: 60 }, (_, i) => ({ id: `m${i}`, label: `${i}` }))

describe('an order written in pieces and groups', () => {
  it('is refused where a few lines would grow without end', () => {
    const itself = pieces([{ id: 'a', steps: [{ use: 'a' }] }])
    expect(refusedWith(source(steps({ use: 'a' })), itself)).toBe('too-large')
    const doubling = Array.from({ length: 40 }, (_, i) => ({ id: `a${i}`, steps: [{ use: `a${i + 1}` }, { use: `a${i + 1}` }] }))
    expect(refusedWith(source(steps({ use: 'a0' })), pieces(doubling))).toBe('too-large')
    const wide = Array.from({ length: 10 }, (_, i) => ({
      id: `a${i}`,
      steps: Array.from({ length: 200 }, () => ({ use: `a${i + 1}` })),
    }))
    expect(refusedWith(source(steps({ use: 'a0' })), pieces([...wide, { id: 'a10', steps: [one] }]))).toBe('too-large')
    // Every one of a group, for every one of a group, for every one …
    const nested = (deep: number): object => (deep === 0 ? { done: 'one' } : { each: 'all', if: nested(deep - 1) })
    const needs = [{ id: 'n', if: nested(8), because: 'So.' }]
    expect(refusedWith(source({ members: { all: sixty }, ...steps({ ...one, needs }) }))).toBe('too-large')
    const long = { ...one, label: '$label'.repeat(300) }
    const many = Array.from({ length: 900 }, () => ({ ...long, each: 'all' }))
    const labels = sixty.map((m) => ({ ...m, label: 'x'.repeat(200) }))
    expect(refusedWith(source({ members: { all: labels }, ...steps(...many) }))).toBe('too-large')
    // Words that are filled with words that are filled.
    const filling = Array.from({ length: 10 }, (_, i) => ({
      id: `a${i}`,
      steps: [{ use: `a${i + 1}`, with: { w: '{{w}}{{w}}{{w}}{{w}}' } }],
    }))
    expect(refusedWith(source(steps({ use: 'a0', with: { w: 'xxxx' } })), pieces(filling))).toBe('too-large')
    expect(refusedWith(source(steps({ ...one, label: 'x'.repeat(3000), each: 'all' }, { use: 'a' })), pieces([]))).not.toBe(
      'written',
    )
  })

  it('knows no group, piece or word by what every object has', () => {
    expect(refusedWith(source(steps({ ...one, each: 'constructor' })))).toBe('unknown-members')
    expect(refusedWith(source(steps({ ...one, each: '__proto__' })))).toBe('unknown-members')
    const p = pieces([{ id: 'a', steps: [{ id: 'toString', label: 'The {{valueOf}}' }] }])
    const flat = procedureOf(writtenFlat(source(steps({ use: 'a' })), p))
    expect(flat).toEqual([{ id: 'toString', label: 'The ', needs: [] }])
  })

  it('keeps the first of each state, in the order they come', () => {
    const states = [
      { id: 'b', label: 'first' },
      { id: 'a', label: 'A' },
    ]
    const p = pieces([
      {
        id: 'x',
        states: [
          { id: 'a', label: 'of the piece' },
          { id: 'b', label: 'too' },
          { id: 'c', label: 'C' },
        ],
        steps: [],
      },
    ])
    const flat = writtenFlat(source({ states, ...steps(one, { use: 'x' }) }), p)
    expect(flat).toMatchObject({
      states: [
        { id: 'b', label: 'first' },
        { id: 'a', label: 'A' },
        { id: 'c', label: 'C' },
      ],
    })
    expect(isRefusal(flat)).toBe(false)
  })
})

const procedureOf = (flat: object) => (flat as { procedures: { steps: object[] }[] }).procedures[0]?.steps
