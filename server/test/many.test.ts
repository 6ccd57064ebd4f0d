import pg from 'pg'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { Database, type Tx } from '../src/db/database'
import { migrate } from '../src/db/migrate'
import { readDefects } from '../src/defects/routes'
import { layOutMany } from '../src/demo/many'
import { seed } from '../src/demo/seed'
import { readInspections } from '../src/inspections/routes'
import { readJournal } from '../src/journal/routes'
import { verifyJournal } from '../src/journal/verify'

/** A database of its own with a long past: 100,000 journal entries, 5,000 rounds, 2,000 defects. */
const name = 'many'
const app = new URL(inject('databaseUrl'))
const own = new URL(inject('ownerUrl'))
let db: Database
let owner: pg.Client
const who = { org: 'skarrow-haven', person: 'wilhelmina-osei' }

beforeAll(async () => {
  const as = { host: '127.0.0.1', port: Number(own.port), user: own.username, password: own.password }
  await migrate(as, name, { app: app.password, door: new URL(inject('doorUrl')).password })
  await seed(as, name, false)
  owner = new pg.Client({ ...as, database: name, options: '-c search_path=geolabe' })
  await owner.connect()
  await layOutMany(owner, who.org, { entries: 100_000, inspections: 5000, defects: 2000 })
  db = new Database(inject('databaseUrl').replace(/[^/]+$/, name))
}, 240_000)
afterAll(async () => {
  await db?.end()
  await owner?.end()
})

interface Plan {
  'Node Type': string
  'Relation Name'?: string
  Plans?: Plan[]
}
const nodes = (p: Plan): Plan[] => [p, ...(p.Plans ?? []).flatMap(nodes)]
const long = ['journal', 'inspection', 'defect', 'inspection_entry', 'shift']

/** Every query that a page asks, with its plan as the application’s own role has it. */
async function plansOf(read: (tx: Tx) => Promise<unknown>) {
  return db.as(who, async (tx) => {
    const asked: [string, unknown[] | undefined][] = []
    const spy: Tx = {
      ...tx,
      query: (text, values) => {
        asked.push([text, values])
        return tx.query(text, values)
      },
    }
    await read(spy)
    const plans: { ms: number; whole: string[] }[] = []
    for (const [text, values] of asked) {
      const r = await tx.query<{ 'QUERY PLAN': { Plan: Plan; 'Execution Time': number }[] }>(
        `explain (analyze, format json) ${text}`,
        values,
      )
      const plan = r.rows[0]?.['QUERY PLAN'][0]
      if (!plan) throw new Error('no plan')
      const whole = nodes(plan.Plan).filter((n) => n['Node Type'] === 'Seq Scan' && long.includes(n['Relation Name'] ?? ''))
      plans.push({ ms: plan['Execution Time'], whole: whole.map((n) => n['Relation Name'] ?? '') })
    }
    return plans
  })
}

const pages: [string, (tx: Tx) => Promise<{ length: number }>][] = [
  ['journal', async (tx) => (await readJournal(tx, { query: {} })).entries],
  ['journal, one kind', async (tx) => (await readJournal(tx, { query: { kind: 'defect-raised' } })).entries],
  ['journal, one person', async (tx) => (await readJournal(tx, { query: { actor: 'ines-haldane' } })).entries],
  ['journal, one machine', async (tx) => (await readJournal(tx, { query: { machine: 'tern' } })).entries],
  ['journal, words', async (tx) => (await readJournal(tx, { query: { words: '77123' } })).entries],
  ['journal, far back', async (tx) => (await readJournal(tx, { query: { before: '5000' } })).entries],
  ['rounds', async (tx) => (await readInspections(tx, { query: {} })).inspections],
  ['rounds of one machine', async (tx) => (await readInspections(tx, { query: { machine: 'tern' } })).inspections],
  ['defects, open', async (tx) => (await readDefects(tx, { query: {} })).defects],
  ['defects, all', async (tx) => (await readDefects(tx, { query: { all: '' } })).defects],
  ['defects of one machine', async (tx) => (await readDefects(tx, { query: { all: '', machine: 'tern' } })).defects],
]

describe('with a long past', () => {
  it('is laid out as many as were asked for, and the chain of a hundred thousand is whole', async () => {
    const n = (
      await owner.query(
        'select (select count(*)::int from journal) as j, (select count(*)::int from inspection) as i, (select count(*)::int from defect) as d',
      )
    ).rows[0]
    expect(n.j).toBeGreaterThanOrEqual(100_000)
    expect(n.i).toBeGreaterThanOrEqual(5000)
    expect(n.d).toBeGreaterThanOrEqual(2000)
    const check = await db.as(who, verifyJournal)
    expect(check.intact).toBe(true)
    expect(check.entries).toBeGreaterThanOrEqual(100_000)
  }, 60_000)

  it.each(pages)('the first page of “%s” goes by an index, never through the whole table', async (label, read) => {
    const plans = await plansOf(read)
    expect(plans.length).toBeGreaterThan(0)
    console.log(`     ${label}: ${plans.map((p) => p.ms.toFixed(1)).join(' + ')} ms`)
    expect(plans.flatMap((p) => p.whole)).toEqual([])
  })

  it('finds the one entry among a hundred thousand that was altered by hand, and says which', async () => {
    await owner.query('alter table journal disable trigger journal_append_only')
    await owner.query(`update journal set body = body || '{"words": "nothing happened"}' where org = $1 and seq = 61234`, [
      who.org,
    ])
    await owner.query('alter table journal enable trigger journal_append_only')
    expect(await db.as(who, verifyJournal)).toMatchObject({ intact: false, brokenAt: 61234 })
  }, 60_000)
})
