import type { MachineFile } from '@geolabe/contract'
import type { Tx } from '../db/database'

/** Readings shown beside a new one, and drawn as a trend. */
const kept = 24

/** The last readings of each measured item of a machine, oldest first. */
export async function readingsOf(tx: Tx, machine: string): Promise<MachineFile['readings']> {
  const r = await tx.query<{ item: string; at: Date; reading: number; because: string | null }>(
    `select i.item, w.at, w.reading, w.because from (select distinct item from inspection_entry where machine = $1 and reading is not null) i
     cross join lateral (
       select at, reading, because from inspection_entry x where x.machine = $1 and x.item = i.item and x.reading is not null and x.org = current_org()
       order by x.at desc limit ${kept}
     ) w order by i.item, w.at`,
    [machine],
  )
  const by: MachineFile['readings'] = {}
  for (const x of r.rows) {
    by[x.item] = [...(by[x.item] ?? []), { at: x.at.toISOString(), value: x.reading, replaced: x.because === 'replaced' }]
  }
  return by
}
