import { authoriseRequest, type PeoplePage } from '@geolabe/contract'
import type { Licence, Machine, Role } from '@geolabe/core'
import { Router } from 'express'
import type { Database, Tx } from '../db/database'
import { notFound, reads, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'

async function readPeople(tx: Tx): Promise<PeoplePage> {
  const people = await tx.query<{
    id: string
    name: string
    badge: string
    roles: Role[]
    licences: Licence[]
    trained: string[]
    authorised: string[]
  }>(
    `select p.id, p.name, p.badge, p.roles, p.licences, p.trained,
      coalesce((select array_agg(a.machine order by a.machine) from authorisation a where a.org = p.org and a.person = p.id and a.withdrawn_at is null), '{}') as authorised
     from person p order by p.name limit 1000`,
  )
  const machines = await tx.query<{ document: Machine }>('select document from machine order by id limit 500')
  const contacts = await tx.query<{ person: string; person_name: string; stand_in: string; stand_in_name: string }>(
    `select c.person, a.name as person_name, c.stand_in, b.name as stand_in_name from defect_contact c
     join person a on a.org = c.org and a.id = c.person join person b on b.org = c.org and b.id = c.stand_in order by c.person`,
  )
  return {
    people: people.rows,
    machines: machines.rows.map(({ document: m }) => ({ id: m.id, name: m.name, kind: m.kind, licence: m.licence })),
    contacts: contacts.rows.map((c) => ({
      person: { id: c.person, name: c.person_name },
      standIn: { id: c.stand_in, name: c.stand_in_name },
    })),
  }
}

/** Who may: licences, training, and the key to each machine. */
export function peopleRoutes(db: Database): Router {
  const router = Router()
  router.get('/people', reads(db, readPeople))
  router.post(
    '/people/:id/keys',
    writes(db, authoriseRequest, async (tx, b, req) => {
      const person = String(req.params.id)
      const me = await readMe(tx)
      if (!me.roles.includes('person-in-charge') && !me.roles.includes('administrator')) {
        throw new Problem(403, 'not-your-part', 'The person in charge or an administrator gives keys.')
      }
      if (b.give && person === me.id) throw new Problem(403, 'own-key', 'Nobody authorises themselves.')
      const machine = await machineNamed(tx, b.machine)
      const known = await tx.query('select from person where id = $1', [person])
      if (!known.rowCount) throw notFound('This person')
      const r = b.give
        ? await tx.query(
            'insert into authorisation (org, person, machine, given_by) values ($1, $2, $3, $4) on conflict (org, person, machine) where withdrawn_at is null do nothing',
            [tx.who.org, person, machine.id, me.id],
          )
        : await tx.query(
            'update authorisation set withdrawn_by = $3, withdrawn_at = now() where person = $1 and machine = $2 and withdrawn_at is null',
            [person, machine.id, me.id],
          )
      if (r.rowCount) await tx.journal(b.give ? 'key-given' : 'key-withdrawn', person, { machine: machine.id })
      return readPeople(tx)
    }),
  )
  return router
}
