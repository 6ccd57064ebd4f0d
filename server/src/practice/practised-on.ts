import { createHash } from 'node:crypto'
import { canonical, type Game } from '@geolabe/contract'
import { type Machine, practisedOn } from '@geolabe/core'
import type { Tx } from '../db/database'
import { tablesOf } from '../library/table'

export const sha256 = (v: unknown): string => createHash('sha256').update(canonical(v)).digest('hex')

/** What of a machine a game is about, in short: where it is another, what was shown was shown on an earlier machine. */
export async function practisedDigest(tx: Tx, machine: Machine, game: Game): Promise<string> {
  const tables = game === 'judge' ? (await tablesOf(tx, machine.id)).map(({ id, revision }) => ({ id, revision })) : []
  return sha256({ on: practisedOn(machine), tables })
}
