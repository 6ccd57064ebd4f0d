import { expectedOnPlate, type Machine, type PlateFault, type PlateValue, plateFault } from '@geolabe/core'
import type { Tx } from '../db/database'
import { Problem } from '../problem/problem'
import { tablesOf } from './table'

/** The rating plate as it was last entered, field by field; null: not yet. */
export async function plateOf(tx: Tx, machine: Machine): Promise<Record<string, PlateValue> | null> {
  const r = await tx.query<{ field: string; value: string }>(
    'select distinct on (field) field, value from plate_value where machine = $1 order by field, at desc',
    [machine.id],
  )
  if (r.rows.length === 0) return null
  const figures = new Set(machine.plateFields.filter((f) => f.quantity).map((f) => f.id))
  return Object.fromEntries(r.rows.map((x) => [x.field, figures.has(x.field) ? Number(x.value) : x.value]))
}

/** What each field must read by the tables in use. */
export async function plateExpected(tx: Tx, machine: Machine): Promise<Record<string, number>> {
  const tables = await tablesOf(tx, machine.id)
  return Object.fromEntries(
    machine.plateFields.flatMap((f) => {
      const expected = expectedOnPlate(f, tables)
      return expected === null ? [] : [[f.id, expected]]
    }),
  )
}

const words = (f: PlateFault): { code: string; message: string } => {
  const { label } = f.field
  if (f.kind === 'missing') return { code: 'plate-not-read', message: `Enter what the plate says: ${label}.` }
  if (f.kind === 'no-figure') return { code: 'plate-no-figure', message: `${label}: enter the figure on the plate, no words.` }
  if (f.kind === 'changed') {
    return {
      code: 'plate-differs',
      message: `${label} was “${f.was}” when the plate was entered, and reads “${f.now}” now. Enter it as a defect.`,
    }
  }
  return {
    code: 'plate-not-the-table',
    message: `${label}: the plate reads ${f.now}, the table in use gives ${f.expected}. One of them belongs to another machine: enter it as a defect.`,
  }
}

/**
 * The plate in order: the first time its fields are entered and kept; ever after they read as they were entered and as the
 * table in use gives them. A field that reads otherwise is a defect, never a correction.
 */
export async function checkPlate(tx: Tx, machine: Machine, given: Record<string, PlateValue> | null): Promise<void> {
  if (machine.plateFields.length === 0) return
  const known = await plateOf(tx, machine)
  const fault = plateFault(machine.plateFields, known, given, await tablesOf(tx, machine.id))
  if (fault) {
    const { code, message } = words(fault)
    throw new Problem(422, code, message, `plate.${fault.field.id}`)
  }
  if (known !== null) return
  for (const f of machine.plateFields) {
    await tx.query('insert into plate_value (org, machine, field, value, by) values ($1, $2, $3, $4, $5)', [
      tx.who.org,
      machine.id,
      f.id,
      String(given?.[f.id]),
      tx.who.person,
    ])
  }
  await tx.journal('plate-entered', machine.id, { machine: machine.id, ...given })
}
