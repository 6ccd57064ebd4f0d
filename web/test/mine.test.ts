import type { Shift } from '@geolabe/contract'
import { assess, calculators, isRefusal, project } from '@geolabe/core'
import { expect, it } from 'vitest'
import { demoMachine, northQuay, tern, ternLift, ternSetup, ternTable } from '../../core/test/demo'
import { knownBy, type Mine } from '../src/calculators/drawings/mine'
import { presentationOf } from '../src/calculators/presentations'

const person = { id: 'ines', name: 'Ines Haldane' }
const empty = project([
  {
    kind: 'shift-opened',
    at: '2026-03-01T06:00:00.000Z',
    by: person,
    shift: '00000000-0000-4000-8000-000000000001',
    machine: { id: 'tern', name: 'Tern' },
    place: { id: 'north-quay', name: 'North Quay' },
  },
] as unknown as Parameters<typeof project>[0])
const setup = ternSetup({ left: 'intermediate' })
const plan = ternLift()
const assessment = assess({
  machine: tern,
  tables: [ternTable],
  setup,
  lift: plan,
  conditions: { wind_mps: 4 },
  place: northQuay,
  policy: northQuay.policy,
})
const worked = { ...empty, setups: [{ plan: setup }], lifts: [{ plan, assessment }] } as unknown as Shift

const taking = async () => {
  const all = await Promise.all(calculators.map(async (c) => ({ c, p: (await presentationOf(c.name))?.presentation })))
  return all.flatMap(({ c, p }) => (p?.mine ? [{ c, mine: p.mine }] : []))
}

it('calculators take from a shift what its machine, set-up and lift know, and answer from that', async () => {
  const own: Mine = { machine: tern, place: northQuay, shift: worked }
  const list = await taking()
  expect(list.length).toBeGreaterThanOrEqual(5)
  for (const { c, mine } of list) {
    const known = mine(own)
    expect(known, c.name).not.toBeNull()
    const input = JSON.parse(JSON.stringify({ ...(c.example as object), ...(known as object) }))
    const answer = c.run(input)
    expect(isRefusal(answer) ? answer.error : null, c.name).toBeNull()
  }
})

it('what a shift does not know it gives to none: no set-up, no lift, another kind of machine', async () => {
  for (const { c, mine } of await taking()) {
    const standsOn = c.name !== 'line-approach'
    if (!standsOn) continue
    expect(mine({ machine: tern, place: northQuay, shift: empty }), c.name).toBeNull()
    expect(mine({ machine: demoMachine('puffin'), place: northQuay, shift: worked }), c.name).toBeNull()
  }
})

it('a set-up in which something is not said yet gives nothing, and breaks nothing', async () => {
  const unsaid = { ...worked, setups: [{ plan: { ...setup, fitted: {} } }] } as unknown as Shift
  for (const { mine } of await taking())
    expect(() => knownBy(mine, { machine: tern, place: northQuay, shift: unsaid })).not.toThrow()
})
