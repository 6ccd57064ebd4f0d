import { type ShiftFile, shiftFile } from '@geolabe/contract'
import { parseOrRefuse } from '@geolabe/core'
import type { Tx } from '../db/database'
import { defectsWhere } from '../defects/read'
import { Problem } from '../http/problem'
import { readShift } from '../shift/read'
import { machineNamed, tablesOf } from '../yard/yard'

/** A shift with everything it rests on, as one file. */
export async function exportShift(tx: Tx, id: string): Promise<ShiftFile> {
  const shift = await readShift(tx, id)
  const defects = await defectsWhere(tx, 'd.shift = $1', [id], 500)
  return {
    format: 'geolabe.shift/1',
    exportedAt: new Date().toISOString(),
    organisation: tx.who.org,
    shift,
    machine: await machineNamed(tx, shift.machine.id),
    tables: await tablesOf(tx, shift.machine.id),
    defects: defects.map((d) => ({
      id: d.id,
      machine: d.machine.id,
      shift: id,
      item: d.item,
      where: d.where,
      words: d.words,
      grade: d.grade,
      spot: d.spot,
      raisedBy: d.raised.by,
      raisedAt: d.raised.at,
    })),
  }
}

/**
 * Takes an exported shift back in, all or nothing. It is kept whole, as a record; it takes no machine and stops none. A
 * shift that is here already is left as it is.
 * @returns the shift's id, and whether it was new
 */
export async function importShift(tx: Tx, raw: unknown): Promise<{ id: string; added: boolean }> {
  const file = parseOrRefuse(shiftFile, raw)
  const s = file.shift
  const here = await tx.query('select from shift where id = $1', [s.id])
  if (here.rowCount) return { id: s.id, added: false }
  for (const [kind, table, id] of [
    ['machine', 'machine', s.machine.id],
    ['place', 'place', s.place.id],
  ] as const) {
    const known = await tx.query(`select from ${table} where id = $1`, [id])
    if (!known.rowCount)
      throw new Problem(
        422,
        `unknown-${kind}`,
        `This yard has no ${kind} “${id}”. Enter it first, then import again.`,
        `shift.${kind}.id`,
      )
  }
  await tx.query(
    `insert into shift (org, id, machine, machine_revision, place, operator, opened_at, closed_at, sign_on, imported)
     values ($1, $2, $3, $4, $5, $6, $7, coalesce($8, now()), $9, $10)`,
    [
      tx.who.org,
      s.id,
      s.machine.id,
      s.machine.revision,
      s.place.id,
      tx.who.person,
      s.openedAt,
      s.closedAt,
      JSON.stringify(s.signOn),
      JSON.stringify(s),
    ],
  )
  await tx.journal('shift-imported', s.id, { from: file.organisation, machine: s.machine.id, operator: s.operator.name })
  return { id: s.id, added: true }
}
