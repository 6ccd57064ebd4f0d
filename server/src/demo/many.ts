import { itemsOf, soundReading } from '@geolabe/core'
import type pg from 'pg'
import { readMachineFile } from './files'

export interface HowMany {
  entries: number
  inspections: number
  defects: number
}

/** Journal entries written in one transaction. */
const piece = 2000

/**
 * Lays a long past into a database that has the demo world: shifts with their rounds, defects that were repaired, and a
 * journal whose chain is whole. Made in the database itself, in a few statements, so that it takes seconds; the chain is
 * computed by the same function that every entry is written with.
 */
export async function layOutMany(client: pg.Client, org: string, many: HowMany): Promise<void> {
  const machines = (await client.query<{ id: string }>('select id from machine where org = $1 order by id', [org])).rows.map(
    (r) => r.id,
  )
  const whole = machines.map(readMachineFile)
  await client.query('begin')
  try {
    await client.query("select set_config('app.org', $1, true), set_config('app.person', null, true)", [org])
    // What stops a machine today has no say in its past.
    await client.query(
      'alter table shift disable trigger user; alter table defect disable trigger user; alter table inspection disable trigger user',
    )
    await client.query(
      `create temporary table long_ago on commit drop as
       select gen_random_uuid() as id, i, ($2::text[])[1 + i % $3] as machine,
         (array['ines-haldane', 'tomas-brekke'])[1 + i % 2] as by,
         now() - interval '60 days' - (i * interval '3 hours') as opened
       from generate_series(1, $1) i`,
      [many.inspections, machines, machines.length],
    )
    await client.query(
      `insert into shift (org, id, machine, machine_revision, place, operator, opened_at, closed_at, sign_on, handover)
       select $1, id, machine, 1, 'north-quay', by, opened, opened + interval '7 hours', '{"ppe": [], "documents": []}',
         jsonb_build_object('hours', null, 'fuel_share', 0.5, 'standsAt', '', 'words', '', 'at', opened + interval '7 hours')
       from long_ago`,
      [org],
    )
    await client.query(
      `insert into inspection (org, id, shift, machine, occasion, by, opened_at, finished_at, raised_at, items, defects, duration_s)
       select $1, id, id, machine, 'pre-use', by, opened, opened + interval '8 minutes', opened + interval '9 minutes', 40, 0, 300 + i % 200 from long_ago`,
      [org],
    )
    // Who had which machine when; what was entered long ago is in its counts.
    await client.query(
      `insert into shift_event (org, shift, at, actor, kind, body)
       select $1, id, opened, by, 'shift-opened', jsonb_build_object('shift', id, 'machine', jsonb_build_object('id', machine, 'name', machine, 'revision', 1),
         'place', jsonb_build_object('id', 'north-quay', 'name', 'North Quay'), 'signOn', '{"ppe": [], "documents": []}'::jsonb) from long_ago
       union all select $1, id, opened, by, 'inspection-opened', jsonb_build_object('inspection', id, 'occasion', 'pre-use') from long_ago`,
      [org],
    )
    for (const m of whole) {
      // The measured items of each walk-round; the rest of a long past is in its counts.
      const measured = itemsOf(m.walkround).flatMap(({ item }) =>
        item.measure ? [{ item: item.id, reading: soundReading(item.measure) }] : [],
      )
      await client.query(
        `insert into inspection_entry (org, shift, inspection, machine, item, result, reading, at)
         select $1, l.id, l.id, l.machine, r.item, 'in-order', r.reading, l.opened + interval '5 minutes'
         from long_ago l cross join json_to_recordset($2) as r(item text, reading float8) where l.machine = $3`,
        [org, JSON.stringify(measured.slice(0, 4)), m.id],
      )
    }
    await client.query(
      `insert into defect (org, id, machine, place_on_machine, words, grade, raised_grade, state, raised_by, raised_at,
         acknowledged_by, acknowledged_at, repaired_by, repaired_at, repair, verified_by, verified_at, verify_words, returned_by, returned_at, return_words)
       select $1, gen_random_uuid(), ($3::text[])[1 + i % $4], 'Left side', 'Defect number ' || i, (array['hazard', 'damage', 'watch'])[1 + i % 3],
         (array['hazard', 'damage', 'watch'])[1 + i % 3], 'returned', 'ines-haldane', t, 'wilhelmina-osei', t + interval '1 hour',
         'rafiq-dunmore', t + interval '1 day', '{"words": "Mended", "parts": "", "hours": 1}', 'tomas-brekke', t + interval '25 hours', 'Tried',
         'wilhelmina-osei', t + interval '26 hours', 'Seen working'
       from (select i, now() - interval '60 days' - i * interval '7 hours' as t from generate_series(1, $2) i) d`,
      [org, many.defects, machines, machines.length],
    )
    await client.query(
      'alter table shift enable trigger user; alter table defect enable trigger user; alter table inspection enable trigger user',
    )
    await client.query('commit')
  } catch (e) {
    await client.query('rollback')
    throw e
  }
  const kinds = ['inspection-entry', 'shift-opened', 'inspection-finished', 'defect-raised', 'defect-repaired', 'shift-closed']
  // One call an entry: each carries the hash of the one before. In pieces, since what is counted again and again within one
  // transaction grows slower with each time.
  for (let from = 1; from <= many.entries; from += piece) {
    await client.query('begin')
    await client.query("select set_config('app.org', $1, true), set_config('app.person', null, true)", [org])
    await client.query(
      `select count(journal_append(($3::text[])[1 + i % 6], md5(i::text),
         jsonb_build_object('machine', ($4::text[])[1 + i % $5], 'item', 'item-' || (i % 40), 'words', 'entry number ' || i)))
       from generate_series($1::int, $2::int) i`,
      [from, Math.min(many.entries, from + piece - 1), kinds, machines, machines.length],
    )
    await client.query('commit')
  }
  for (const t of ['shift', 'inspection', 'inspection_entry', 'defect', 'journal']) await client.query(`analyze ${t}`)
}
