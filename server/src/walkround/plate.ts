import type { Machine } from '@geolabe/core'
import type { Tx } from '../db/database'
import { Problem } from '../http/problem'

/** The rating plate as it was last entered, field by field; null: not yet. */
export async function plateOf(tx: Tx, machine: string): Promise<Record<string, string> | null> {
  const r = await tx.query<{ field: string; value: string }>(
    'select distinct on (field) field, value from plate_value where machine = $1 order by field, at desc',
    [machine],
  )
  return r.rows.length === 0 ? null : Object.fromEntries(r.rows.map((x) => [x.field, x.value]))
}

const plain = (s: string) => s.replace(/\s+/g, ' ').trim().toLowerCase()

/**
 * The plate in order: the first time its fields are entered and kept; ever after they read as they were entered. A field that
 * reads otherwise is a defect, never a correction.
 */
export async function checkPlate(tx: Tx, machine: Machine, given: Record<string, string> | null): Promise<void> {
  if (machine.plateFields.length === 0) return
  const known = await plateOf(tx, machine.id)
  if (known === null) {
    const missing = machine.plateFields.find((f) => !given?.[f.id]?.trim())
    if (missing) throw new Problem(422, 'plate-not-read', `Enter what the plate says: ${missing.label}.`, `plate.${missing.id}`)
    for (const f of machine.plateFields) {
      await tx.query('insert into plate_value (org, machine, field, value, by) values ($1, $2, $3, $4, $5)', [
        tx.who.org,
        machine.id,
        f.id,
        given?.[f.id],
        tx.who.person,
      ])
    }
    await tx.journal('plate-entered', machine.id, { machine: machine.id, ...given })
    return
  }
  for (const f of machine.plateFields) {
    const now = given?.[f.id]
    const before = known[f.id]
    if (now !== undefined && before !== undefined && plain(now) !== plain(before)) {
      throw new Problem(
        422,
        'plate-differs',
        `${f.label} was “${before}” when the plate was entered, and reads “${now}” now. Enter it as a defect.`,
        `plate.${f.id}`,
      )
    }
  }
}
