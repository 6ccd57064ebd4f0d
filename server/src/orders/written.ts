import type { CheckOrderRequest, OrderPage, OrderWritten } from '@geolabe/contract'
import { type Machine, machineDefinition, orderChanges, type ProcedureFile, parseOrRefuse } from '@geolabe/core'
import type { Tx } from '../db/database'
import { notFound, requireRole } from '../http/routes'
import { documentOf } from '../library/documents'
import { holdMachine, withOwn } from '../library/machine'
import { Problem } from '../problem/problem'

interface Row {
  id: string
  based_on: number
  revision: number | null
  document: ProcedureFile
  why: string
  written_by: string
  written_by_name: string
  written_at: Date
  state: OrderWritten['state']
  checked_by: string | null
  checked_by_name: string | null
  words: string
}

const written = (r: Row): OrderWritten => ({
  id: r.id,
  revision: r.revision,
  why: r.why,
  writtenBy: { id: r.written_by, name: r.written_by_name },
  writtenAt: r.written_at.toISOString(),
  state: r.state,
  checkedBy: r.checked_by === null ? null : { id: r.checked_by, name: r.checked_by_name ?? '' },
  words: r.words,
})

/** A machine's order as it counts, what waits, what was written before. */
export async function readOrders(tx: Tx, id: string): Promise<OrderPage> {
  const { document } = await documentOf<Machine>(tx, 'machine', id, 'This machine')
  const { definition, orderRevision } = await withOwn(tx, document)
  const order = definition.procedures
  const r = await tx.query<Row>(
    `select o.*, p.name as written_by_name, c.name as checked_by_name from order_revision o
     join person p on p.org = o.org and p.id = o.written_by left join person c on c.org = o.org and c.id = o.checked_by
     where o.machine = $1 order by o.written_at desc limit 20`,
    [id],
  )
  const open = r.rows.find((x) => x.state === 'open')
  return {
    machine: id,
    revision: orderRevision,
    order,
    waiting: open
      ? { ...written(open), from: open.based_on, order: open.document, changes: orderChanges(order, open.document) }
      : null,
    before: r.rows.filter((x) => x !== open).map(written),
  }
}

/** The machine with another order in place of its own. @throws Refusal naming what of it cannot be */
export const machineWith = (machine: Machine, procedures: object): Machine =>
  parseOrRefuse(machineDefinition, { ...machine, procedures })

const changedMeanwhile = (path: string) =>
  new Problem(409, 'changed-meanwhile', 'Its order changed meanwhile. Look at it again, then write yours over it.', path)

/** An order that was looked through is kept until the person in charge has read it; a newer one takes its place. */
export async function write(
  tx: Tx,
  machine: string,
  b: { id: string; from: number; why: string; order: ProcedureFile },
): Promise<{ id: string }> {
  const page = await readOrders(tx, machine)
  if (page.revision !== b.from) throw changedMeanwhile('from')
  const changes = orderChanges(page.order, b.order)
  if (changes.length === 0)
    throw new Problem(422, 'bad-input', 'This says what is in force already; nothing would change.', 'file')
  await tx.query("update order_revision set state = 'replaced' where machine = $1 and state = 'open'", [machine])
  await tx.query(
    'insert into order_revision (org, id, machine, based_on, document, why, written_by) values ($1, $2, $3, $4, $5, $6, $7)',
    [tx.who.org, b.id, machine, b.from, JSON.stringify(b.order), b.why, tx.who.person],
  )
  // Old words and new stand in the two documents; the journal says what, and of what.
  const told = changes.slice(0, 200).map(({ what, part, name, within }) => ({ what, part, name, within }))
  await tx.journal('order-written', machine, {
    order: b.id,
    from: b.from,
    why: b.why,
    changes: told,
    more: changes.length - told.length,
  })
  return { id: b.id }
}

/** The person in charge says that it may count, or what is wrong, and it goes back. */
export async function check(tx: Tx, machine: string, b: CheckOrderRequest): Promise<{ revision: number | null }> {
  await requireRole(tx, 'person-in-charge', 'The person in charge puts an order of work in force.')
  await holdMachine(tx, machine)
  const { waiting, revision } = await readOrders(tx, machine)
  if (waiting?.id !== b.id) throw notFound('An order that waits')
  if (b.ok && waiting.writtenBy.id === tx.who.person)
    throw new Problem(403, 'own-order', 'You wrote this; somebody else reads it and puts it in force.', 'ok')
  if (b.ok && revision !== waiting.from) throw changedMeanwhile('id')
  const open = await tx.query('select from shift where machine = $1 and closed_at is null', [machine])
  if (b.ok && open.rowCount)
    throw new Problem(409, 'machine-taken', 'A shift is under way on this machine. Put its order in force after the handover.')
  if (b.ok) machineWith((await documentOf<Machine>(tx, 'machine', machine, 'This machine')).document, waiting.order)
  const becomes = b.ok ? revision + 1 : null
  await tx.query(
    'update order_revision set state = $2, revision = $3, checked_by = $4, checked_at = now(), words = $5 where id = $1',
    [b.id, b.ok ? 'taken' : 'returned', becomes, tx.who.person, b.words ?? ''],
  )
  const told = { order: b.id, revision: becomes, words: b.words ?? '' }
  await tx.journal(b.ok ? 'order-in-force' : 'order-returned', machine, told)
  return { revision: becomes }
}
