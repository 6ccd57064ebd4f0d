import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { groundAt, impedimentsTo, inTheWay, tailGap, toMachine, toPlace } from '../src'
import { northQuay, tern } from './demo'

const finite = fc.double({ min: -100, max: 100, noNaN: true })

describe('standing in a place', () => {
  it('comes back from the place to the machine', () => {
    fc.assert(
      fc.property(
        finite,
        finite,
        fc.double({ min: -720, max: 720, noNaN: true }),
        finite,
        finite,
        (x_m, y_m, heading_deg, px, py) => {
          const position = { x_m, y_m, heading_deg }
          const back = toMachine(position, toPlace(position, { x_m: px, y_m: py }))
          expect(back.x_m).toBeCloseTo(px, 9)
          expect(back.y_m).toBeCloseTo(py, 9)
        },
      ),
    )
  })

  const wall = { x_m: 18, y_m: 4.3, heading_deg: 0 }
  it('keeps a foot out of the wall and out of the harbour, from the size of what it stands on', () => {
    expect(inTheWay(northQuay, wall, { x_m: 2.75, y_m: 3 }, 0.6)?.id).toBe('market')
    expect(inTheWay(northQuay, wall, { x_m: 2.75, y_m: 2.15 }, 0.6)).toBeUndefined()
    expect(inTheWay(northQuay, wall, { x_m: 2.75, y_m: -4.2 }, 0.25)?.id).toBe('basin')
    // Turned about, the other side faces the wall.
    expect(inTheWay(northQuay, { ...wall, heading_deg: 180 }, { x_m: 2.75, y_m: -3 }, 0.6)?.id).toBe('market')
  })

  it('names the ground underfoot, the topmost where two lie over each other', () => {
    expect(groundAt(northQuay, wall, { x_m: 0, y_m: 0 })).toBe('deck')
    expect(groundAt(northQuay, wall, { x_m: 11, y_m: 0 })).toBe('made')
    expect(groundAt(northQuay, { x_m: 46, y_m: 8, heading_deg: 0 }, { x_m: 0, y_m: 2 })).toBe('apron')
  })

  it('sees where the tail would strike, and where it would crush', () => {
    expect(tailGap(northQuay, wall, 3.1)).toMatchObject({ feature: { id: 'market' } })
    expect(tailGap(northQuay, wall, 3.1)?.gap_m).toBeCloseTo(0.45, 9)
    expect(tailGap(northQuay, { ...wall, y_m: 5.25 }, 3.1)?.gap_m).toBeCloseTo(-0.5, 9)
    expect(tailGap(northQuay, { ...wall, y_m: 3 }, 3.1)).toBeNull()
  })
})

describe('who may operate', () => {
  const person = {
    name: 'Somebody',
    roles: ['operator' as const],
    licences: [{ class: 'mobile-crane', grade: 'A', validUntil: '2026-03-31' }],
    trained: [tern.kind.id],
    authorised: [tern.id],
  }
  it('counts a licence through its last day', () => {
    expect(impedimentsTo(person, tern, '2026-03-31')).toEqual([])
    expect(impedimentsTo(person, tern, '2026-04-01').map((b) => b.code)).toEqual(['licence-expired'])
  })
  it('takes the latest of several cards, asks for the class, the role and the training', () => {
    const renewed = { ...person, licences: [...person.licences, { class: 'mobile-crane', grade: 'A', validUntil: '2030-01-01' }] }
    expect(impedimentsTo(renewed, tern, '2027-01-01')).toEqual([])
    expect(
      impedimentsTo(
        {
          ...person,
          licences: [{ class: 'forklift', grade: 'A', validUntil: '2030-01-01' }],
          roles: ['fitter'],
          trained: [],
          authorised: [],
        },
        tern,
        '2026-01-01',
      ).map((b) => b.code),
    ).toEqual(['role', 'no-licence', 'not-trained', 'not-authorised'])
  })
})
