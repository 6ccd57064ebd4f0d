import { hash } from '@node-rs/argon2'
import pg from 'pg'
import type { Owner } from '../db/migrate'
import { readHistories, readMachineFile, readModelFile, readOrganisations, readPlaceFile, readTableFile } from './files'
import { seedHistory } from './history'

const dayFromToday = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)

/** Geometry and tables of every machine; those that are there already are left as they are. */
async function layOutTables(client: pg.Client): Promise<void> {
  for (const org of readOrganisations()) {
    for (const id of org.models) {
      await client.query('insert into machine_model values ($1, $2, $3) on conflict do nothing', [
        org.id,
        id,
        JSON.stringify(readModelFile(id)),
      ])
    }
    for (const id of org.tables) {
      const t = readTableFile(id)
      const there = await client.query('select from rating_table where org = $1 and id = $2', [org.id, id])
      if (there.rowCount) continue
      await client.query('insert into rating_table (org, id, revision, machine, document) values ($1, $2, $3, $4, $5)', [
        org.id,
        t.id,
        t.revision,
        t.machine,
        JSON.stringify(t),
      ])
    }
  }
}

/** Machines, and who may drive them; a machine that is there in an earlier revision is brought up to its file. */
async function layOutMachines(client: pg.Client): Promise<void> {
  for (const org of readOrganisations()) {
    for (const id of org.machines) {
      const m = readMachineFile(id)
      await client.query(
        `insert into machine values ($1, $2, $3, $4) on conflict (org, id) do update
         set revision = excluded.revision, document = excluded.document where machine.revision < excluded.revision`,
        [org.id, m.id, m.revision, JSON.stringify(m)],
      )
    }
    for (const p of org.people) {
      const licences = p.licences.map((l) => ({
        ...l,
        validUntil: typeof l.validUntil === 'string' ? l.validUntil : dayFromToday(l.validUntil.daysFromToday),
      }))
      // Licences and training that came with later machines are added; what is there stays.
      await client.query(
        `update person set trained = (select array(select distinct unnest(trained || $3::text[]))),
           licences = licences || coalesce((select jsonb_agg(l) from jsonb_array_elements($4::jsonb) l
             where not exists (select from jsonb_array_elements(licences) h where h->>'class' = l->>'class')), '[]')
         where org = $1 and id = $2`,
        [org.id, p.id, p.trained, JSON.stringify(licences)],
      )
      const keys = p.authorised === 'all' ? org.machines : (p.authorised ?? [])
      for (const machine of keys) {
        await client.query(
          `insert into authorisation (org, person, machine) select $1, $2, $3
           where not exists (select from authorisation where org = $1 and person = $2 and machine = $3)`,
          [org.id, p.id, machine],
        )
      }
    }
    for (const c of org.contacts ?? []) {
      await client.query('insert into defect_contact values ($1, $2, $3) on conflict do nothing', [org.id, c.person, c.standIn])
    }
  }
}

/** Lays out the demo world in an empty database; does nothing where it already stands. @returns whether it was laid out */
export async function seed(owner: Owner, database: string, withHistory = true): Promise<boolean> {
  const client = new pg.Client({ ...owner, database, options: '-c search_path=geolabe' })
  await client.connect()
  try {
    await client.query('begin')
    const there = await client.query('select from organisation limit 1')
    if (there.rowCount) {
      // Laid out by an earlier version: what has come since is added, nothing that is there is touched.
      await layOutMachines(client)
      await layOutTables(client)
      await client.query('commit')
      return false
    }
    for (const org of readOrganisations()) {
      await client.query('insert into organisation values ($1, $2)', [org.id, org.name])
      for (const p of org.people) {
        const licences = p.licences.map((l) => ({
          ...l,
          validUntil: typeof l.validUntil === 'string' ? l.validUntil : dayFromToday(l.validUntil.daysFromToday),
        }))
        await client.query(
          'insert into person (org, id, name, badge, roles, pin_hash, licences, trained) values ($1, $2, $3, $4, $5, $6, $7, $8)',
          [org.id, p.id, p.name, p.badge, p.roles, await hash(p.demoPin ?? ''), JSON.stringify(licences), p.trained],
        )
      }
      for (const id of org.places) {
        const p = readPlaceFile(id)
        await client.query('insert into place (org, id, document) values ($1, $2, $3)', [org.id, p.id, JSON.stringify(p)])
      }
      await client.query("select set_config('app.org', $1, true), set_config('app.person', null, true)", [org.id])
      await client.query("select journal_append('demo-seeded', $1, '{}')", [org.id])
    }
    await client.query("select set_config('app.person', null, true)")
    await layOutMachines(client)
    await layOutTables(client)
    if (withHistory) {
      for (const history of readHistories()) await seedHistory(client, history)
    }
    await client.query('commit')
    return true
  } catch (e) {
    await client.query('rollback')
    throw e
  } finally {
    await client.end()
  }
}
