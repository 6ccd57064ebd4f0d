import { type Game, isByLevers, offerIn, type PractisedPage } from '@geolabe/contract'
import { type ByHand, first_level, forKindOf, type Machine, neverPractised, type Offer, type Practised } from '@geolabe/core'
import type { Tx } from '../db/database'
import { tablesOf } from '../library/table'
import { ownCertificates } from './certificates'
import { offeredOn } from './games'

const sooner = (a: number | null, b: number) => (a === null ? b : Math.min(a, b))
const put = (known: ByHand, levers: boolean, days: number): ByHand =>
  levers ? { ...known, levers: sooner(known.levers, days) } : { ...known, other: sooner(known.other, days) }

/** What is on record of who asks, by kind of machine: the last shift, the last passed run, the newest certificate in date. */
export async function practisedBy(tx: Tx): Promise<Map<string, Practised>> {
  const known = new Map<string, Practised>()
  const of = (kind: string) => known.get(kind) ?? neverPractised
  const shifts = await tx.query<{ kind: string; days: number }>(
    `select m.document->'kind'->>'id' as kind, min(extract(epoch from now() - coalesce(s.closed_at, s.opened_at)))::float8 / 86400 as days
     from shift s join machine m on m.org = s.org and m.id = s.machine where s.operator = $1 group by 1`,
    [tx.who.person],
  )
  for (const { kind, days } of shifts.rows) known.set(kind, { ...of(kind), shift_days: days })
  const passed = await tx.query<{ kind: string; game: Game; days: number }>(
    `select m.document->'kind'->>'id' as kind, r.game, min(extract(epoch from now() - r.at))::float8 / 86400 as days
     from practice_run r join machine m on m.org = r.org and m.id = r.machine
     where r.person = $1 and (r.result->>'passed')::boolean and (r.run->>'level')::float8 >= $2 group by 1, 2`,
    [tx.who.person, first_level],
  )
  for (const { kind, game, days } of passed.rows)
    known.set(kind, { ...of(kind), passed_days: put(of(kind).passed_days, isByLevers(game), days) })
  for (const { kind, game, days } of await ownCertificates(tx))
    known.set(kind, { ...of(kind), certificate_days: put(of(kind).certificate_days, isByLevers(game), days) })
  return known
}

export const readPractised = async (tx: Tx): Promise<PractisedPage> => ({ kinds: Object.fromEntries(await practisedBy(tx)) })

/** The same of one machine's kind, and what can be practised on it. */
export const practiceOf = async (tx: Tx, machine: Machine): Promise<{ known: Practised; offer: Offer }> => ({
  known: forKindOf(await practisedBy(tx), machine) ?? neverPractised,
  offer: offerIn(offeredOn(machine, await tablesOf(tx, machine.id))),
})
