import { createHash } from 'node:crypto'
import { canonical, type Game } from '@geolabe/contract'
import { type Machine, partLines, practisedOn } from '@geolabe/core'
import type { Tx } from '../db/database'
import { documentOf } from '../library/documents'
import { type InUse, withOwn } from '../library/machine'
import { tablesOf } from '../library/table'

export const sha256 = (v: unknown): string => createHash('sha256').update(canonical(v)).digest('hex')

/** A machine's document is read once and stays the same object until it changes: so does what was practised on it. */
const known = new WeakMap<Machine, string>()
function digestOf(machine: Machine): string {
  const digest = known.get(machine) ?? sha256(practisedOn(machine))
  known.set(machine, digest)
  return digest
}

/** A machine as practice knows it: its document, and in short what of it a game is about. */
export interface PractisedMachine {
  machine: Machine
  /** Where it is another, what was shown was shown on an earlier machine. */
  digest: string
}

/** A machine as it is practised on now, with the walk-round and the order of work in force. @throws Problem 404 */
export async function inUseNow(tx: Tx, id: string): Promise<InUse & { document: Machine }> {
  const { document } = await documentOf<Machine>(tx, 'machine', id, 'This machine')
  return { ...(await withOwn(tx, document)), document }
}

/** Of one machine and game as they stand now. @throws Problem 404 */
export async function practisedNow(tx: Tx, id: string, game: Game): Promise<PractisedMachine> {
  const { document, definition: machine } = await inUseNow(tx, id)
  const tables = game === 'judge' ? (await tablesOf(tx, id)).map((t) => ({ id: t.id, revision: t.revision })) : []
  // Of an order of work it is the order itself that was practised.
  const order = game === 'sequence' ? [machine.procedures, machine.symptoms, machine.shows] : []
  // Of judging it is the parts that its walk-round looks at.
  const parts = game === 'judge' ? partLines(machine) : []
  return { machine, digest: sha256({ on: digestOf(document), tables, order, parts }) }
}

/** The same for a list: each machine and game is looked up once. */
export function practisedNows(tx: Tx): (id: string, game: Game) => Promise<PractisedMachine> {
  const all = new Map<string, Promise<PractisedMachine>>()
  return (id, game) => {
    const key = `${id} ${game}`
    const found = all.get(key) ?? practisedNow(tx, id, game)
    all.set(key, found)
    return found
  }
}
