import { randomUUID } from 'node:crypto'
import { itemsOf } from '@geolabe/core'
import type pg from 'pg'
import { readMachineFile } from './files'

const org = 'skarrow-haven'

/** What the last shifts of Tern left behind, so that hand-over, watched defects and trends have something to show. */
const past = [
  {
    daysAgo: 9,
    operator: 'tomas-brekke',
    hours: 3811,
    fuel_share: 0.7,
    rope_mm: 15.6,
    words: 'Net loft rafters. Nothing out of the way.',
  },
  {
    daysAgo: 6,
    operator: 'ines-haldane',
    hours: 3816,
    fuel_share: 0.55,
    rope_mm: 15.55,
    words: 'Rear left jack hose sweats at the upper fitting; entered to watch.',
  },
  {
    daysAgo: 2,
    operator: 'tomas-brekke',
    hours: 3822,
    fuel_share: 0.8,
    rope_mm: 15.5,
    words: 'Rope is thinning near the drum, still inside. Left beside the market wall, legs in, hook tied.',
  },
]

const at = (daysAgo: number, hour: number) => new Date(Date.now() - daysAgo * 86_400_000 - (12 - hour) * 3_600_000)

/** A reading in the middle of what the measure allows. */
function ordinary(m: NonNullable<ReturnType<typeof itemsOf>[number]['item']['measure']>, rope_mm: number): number {
  if (m.kind === 'range') return Math.round((m.least + m.most) / 2)
  return m.kind === 'loss' ? rope_mm : m.nominal
}

export async function seedHistory(client: pg.Client): Promise<void> {
  const tern = readMachineFile('tern')
  const items = itemsOf(tern.walkround)
  for (const s of past) {
    const id = randomUUID()
    await client.query("select set_config('app.org', $1, true), set_config('app.person', $2, true)", [org, s.operator])
    const hand = {
      steps: tern.procedures.stow.map((x) => x.id),
      hours: s.hours,
      fuel_share: s.fuel_share,
      standsAt: 'Beside the market wall',
      words: s.words,
      at: at(s.daysAgo, 16).toISOString(),
    }
    await client.query(
      `insert into shift (org, id, machine, machine_revision, place, operator, opened_at, closed_at, sign_on, walk_finished_at, hand_over)
       values ($1, $2, 'tern', $3, 'north-quay', $4, $5, $6, $7, $8, $9)`,
      [
        org,
        id,
        tern.revision,
        s.operator,
        at(s.daysAgo, 7),
        at(s.daysAgo, 16),
        JSON.stringify({ wear: tern.wear.map((w) => w.id), papers: tern.papers.map((p) => p.id) }),
        at(s.daysAgo, 7.3),
        JSON.stringify(hand),
      ],
    )
    for (const [i, { item }] of items.entries()) {
      await client.query('insert into walk_mark values ($1, $2, $3, $4, $5, $6)', [
        org,
        id,
        item.id,
        item.mayBeMissing && i % 2 ? 'not-fitted' : 'in-order',
        item.measure ? ordinary(item.measure, s.rope_mm) : null,
        new Date(at(s.daysAgo, 7).getTime() + i * 17_000),
      ])
    }
    await client.query(
      "select journal_append('shift-opened', $1, $2), journal_append('walk-finished', $1, $3), journal_append('shift-closed', $1, $4)",
      [
        id,
        JSON.stringify({ machine: 'tern', place: 'north-quay' }),
        JSON.stringify({ items: items.length }),
        JSON.stringify(hand),
      ],
    )
    if (s.daysAgo === 6) await watched(client, id)
  }
}

async function watched(client: pg.Client, shift: string): Promise<void> {
  const id = randomUUID()
  const words = 'Sweating at the upper hose fitting of the jack; no drip yet'
  await client.query(
    `insert into defect (org, id, machine, shift, item, place_on_machine, words, grade, raised_by, raised_at)
     values ($1, $2, 'tern', $3, 'leg-rl', 'Rear left · Rear left leg', $4, 'watch', 'ines-haldane', $5)`,
    [org, id, shift, words, at(6, 7.1)],
  )
  await client.query("select journal_append('defect-raised', $1, $2)", [
    id,
    JSON.stringify({ machine: 'tern', words, grade: 'watch' }),
  ])
}
