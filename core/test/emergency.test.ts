import { describe, expect, it } from 'vitest'
import { emergencyCards, procedureFile } from '../src'
import { emergencyKind } from '../src/procedure/emergency'
import { demoMachine, demoMachines } from './demo'

const cardsOf = (id: string) => emergencyCards(demoMachine(id).procedures.emergency)
const said = (id: string, card: string) =>
  cardsOf(id)
    .find((c) => c.id === card)
    ?.acts.join(' · ') ?? ''

describe('emergency cards', () => {
  it.each(demoMachines)('of %s are all there but what cannot happen to it, in one order, each a few acts', (id) => {
    const { without } = demoMachine(id).procedures.emergency
    const cards = cardsOf(id)
    expect(cards.map((c) => c.id)).toEqual(emergencyKind.options.filter((k) => !without.includes(k)))
    for (const c of cards) {
      expect(c.acts.length, c.id).toBeGreaterThan(1)
      expect(c.acts.length, c.id).toBeLessThan(7)
    }
    // Whatever else it is, a load up without power begins with people out from under it, and does not end with it left alone.
    expect(cards.find((c) => c.id === 'power')?.acts[0]).toMatch(/^(Everybody|Nobody)/)
    expect(cards.find((c) => c.id === 'trapped')?.acts).toContain('Stop')
  })
  it('say what this machine does: a belted driver stays in, a tower is let turn only with nothing hung, gravity still lowers', () => {
    for (const id of ['puffin', 'whimbrel', 'dunlin', 'bittern', 'avocet', 'godwit']) expect(said(id, 'over')).toMatch(/belt on/)
    for (const id of ['puffin', 'bittern']) expect(said(id, 'fire')).toMatch(/Gas shut/)
    for (const id of ['dunlin', 'tern']) expect(said(id, 'fire')).not.toMatch(/Gas/)
    expect(said('cormorant', 'wind')).toMatch(/Never released with a load hung/)
    expect(said('wren', 'power')).toMatch(/gravity/)
    expect(said('godwit', 'load')).toMatch(/In first, then down/)
    expect(said('curlew', 'trapped')).toMatch(/rescuer below/)
  })
  it('have nowhere to ask or refuse anything', () => {
    const f = structuredClone(demoMachine('tern').procedures)
    const card = { id: 'wind', acts: ['Down', 'Away'], needs: [{ id: 'x', if: { done: 'key-out' }, because: 'Key.' }] }
    expect(procedureFile.safeParse({ ...f, emergency: { without: [], own: [card] } }).success).toBe(false)
    const odd = procedureFile.safeParse({ ...f, emergency: { without: ['rain'], own: [] } })
    expect(odd.error?.issues[0]?.path).toEqual(['emergency', 'without', 0])
  })
})
