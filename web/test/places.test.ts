import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { carriedOver, differences, kinds, newFeature, newStand, sameThing } from '../src/places/kinds'

const thing = fc.record({ id: fc.constantFrom('a', 'b', 'c', 'd', 'e'), label: fc.constantFrom('x', 'y', 'z') })
const things = fc.uniqueArray(thing, { selector: (x) => x.id, maxLength: 5 })
const sorted = <T extends { id: string }>(all: readonly T[]) => [...all].sort((a, b) => a.id.localeCompare(b.id))

describe('what one person changed of a place, over what another has drawn since', () => {
  it('is all of it where nobody else drew, nothing where one changed nothing, and never two things of one name', () => {
    fc.assert(
      fc.property(things, things, things, (before, after, now) => {
        expect(sorted(carriedOver(before, after, before))).toEqual(sorted(after))
        expect(carriedOver(before, before, now)).toEqual(now)
        const laid = carriedOver(before, after, now)
        expect(new Set(laid.map((x) => x.id)).size).toBe(laid.length)
        for (const d of differences(before, after)) {
          const here = laid.find((x) => x.id === d.id)
          if (d.how === 'gone') expect(here).toBeUndefined()
          else expect(here).toEqual(after.find((x) => x.id === d.id))
        }
        // What nobody touched here stays as the other drew it.
        for (const x of now) if (!differences(before, after).some((d) => d.id === x.id)) expect(laid).toContainEqual(x)
      }),
      { numRuns: 500 },
    )
  })
  it('tells what differs, whatever the order of its fields', () => {
    expect(sameThing({ a: 1, b: [{ c: 2, d: undefined }] }, { b: [{ c: 2 }], a: 1 })).toBe(true)
    fc.assert(
      fc.property(things, things, (a, b) => {
        expect(differences(a, b).length === 0).toBe(sameThing(sorted(a), sorted(b)))
        expect(differences(a, a)).toEqual([])
      }),
      { numRuns: 300 },
    )
  })
})

describe('something new on a plan', () => {
  it('has a name of its own, its shape, and lies where it was put', () => {
    for (const kind of Object.keys(kinds) as (keyof typeof kinds)[]) {
      const place = { features: [], defaultGround: 'yard' }
      const first = newFeature(place, kind, [3, 4])
      const second = newFeature({ ...place, features: [first] }, kind, [3, 4])
      expect(second.id).not.toBe(first.id)
      expect(first.geometry.type).toBe(kinds[kind].shape)
      const mean = (k: 0 | 1) => first.geometry.points.reduce((s, p) => s + p[k], 0) / first.geometry.points.length
      expect([mean(0), mean(1)]).toEqual([3, 4])
    }
    expect(newStand({ positions: [newStand({ positions: [] }, [0, 0])] }, [1, 2])).toMatchObject({
      id: 'stand-2',
      x_m: 1,
      y_m: 2,
    })
  })
})
