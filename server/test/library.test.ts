import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Tx } from '../src/db/database'
import { documentOf } from '../src/library/documents'
import { type Running, start } from './helper'

let app: Running
beforeAll(async () => {
  app = await start()
})
afterAll(() => app.stop())

const place = (tx: Tx) => documentOf<{ name: string }>(tx, 'place', 'north-quay', 'This place')
/** The place of the demo, as whoever owns the database may rename it, and as it was. */
const named = (name: string, add: number) =>
  app.owner.query(
    `update place set document = jsonb_set(document, '{name}', to_jsonb($1::text)), revision = revision + $2 where id = 'north-quay'`,
    [name, add],
  )

describe('documents kept in memory', () => {
  it('are read once while nothing changes, and again when something has', async () => {
    const ines = await app.as('Ines Haldane')
    const who = { org: 'skarrow-haven', person: ines.id }
    const first = await app.db.as(who, place)
    const second = await app.db.as(who, place)
    expect(second.document).toBe(first.document)
    expect(() => Object.assign(first.document, { name: 'Elsewhere' })).toThrow()
    try {
      await named('South quay', 1)
      const third = await app.db.as(who, place)
      expect([third.document.name, third.revision]).toEqual(['South quay', first.revision + 1])
      expect(first.document.name).not.toBe('South quay')
    } finally {
      await named(first.document.name, -1)
    }
    expect((await app.db.as(who, place)).document.name).toBe(first.document.name)
  })
  it('are nobody else’s: another organisation, and nobody at all, is told that there is no such thing', async () => {
    const ines = await app.as('Ines Haldane')
    await app.db.as({ org: 'skarrow-haven', person: ines.id }, place)
    for (const org of ['ferrow-moss', 'nowhere']) {
      await expect(app.db.as({ org, person: ines.id }, place)).rejects.toMatchObject({ status: 404 })
    }
  })
  it('what was rolled back is not remembered', async () => {
    const client = await app.owner.connect()
    const tx: Tx = {
      who: { org: 'skarrow-haven', person: 'x' },
      query: (text, values) => client.query(text, values),
      journal: async () => {},
    }
    try {
      await client.query('begin')
      const before = await place(tx)
      await client.query(`update place set document = jsonb_set(document, '{name}', '"Nowhere"') where id = 'north-quay'`)
      expect((await place(tx)).document.name).toBe('Nowhere')
      await client.query('rollback')
      expect((await place(tx)).document).toEqual(before.document)
    } finally {
      client.release()
    }
  })
})
