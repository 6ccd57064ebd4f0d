import type { Defect, DefectState, Grade } from '@geolabe/contract'
import type { Tx } from '../db/database'

interface Row {
  id: string
  machine: string
  machine_name: string
  item: string | null
  place_on_machine: string
  words: string
  grade: Grade
  state: DefectState
  raised_by: string
  raised_name: string
  raised_at: Date
  seen_by: string | null
  seen_name: string | null
  seen_at: Date | null
  repaired_by: string | null
  repaired_name: string | null
  repaired_at: Date | null
  repair: { words: string; parts: string; hours: number } | null
  returned_by: string | null
  returned_name: string | null
  returned_at: Date | null
  return_words: string | null
  photos: string[] | null
}

function step(id: string | null, name: string | null, at: Date | null) {
  return id && at ? { by: { id, name: name ?? '' }, at: at.toISOString() } : null
}

function defectOf(r: Row): Defect {
  const seen = step(r.seen_by, r.seen_name, r.seen_at)
  const repaired = step(r.repaired_by, r.repaired_name, r.repaired_at)
  const returned = step(r.returned_by, r.returned_name, r.returned_at)
  return {
    id: r.id,
    machine: { id: r.machine, name: r.machine_name },
    item: r.item,
    where: r.place_on_machine,
    words: r.words,
    grade: r.grade,
    state: r.state,
    raised: { by: { id: r.raised_by, name: r.raised_name }, at: r.raised_at.toISOString() },
    seen,
    repair: repaired && r.repair ? { ...repaired, ...r.repair } : null,
    returned: returned && { ...returned, words: r.return_words ?? '' },
    photos: r.photos ?? [],
  }
}

/** Defects by a condition over `d`, newest first. */
export async function defectsWhere(tx: Tx, where: string, values: unknown[], limit: number): Promise<Defect[]> {
  const r = await tx.query<Row>(
    `select d.*, m.document->>'name' as machine_name, a.name as raised_name, b.name as seen_name, c.name as repaired_name, e.name as returned_name,
      (select array_agg(ph.id::text order by ph.id) from photo ph where ph.org = d.org and ph.defect = d.id) as photos
    from defect d
    join machine m on m.org = d.org and m.id = d.machine
    join person a on a.org = d.org and a.id = d.raised_by
    left join person b on b.org = d.org and b.id = d.seen_by
    left join person c on c.org = d.org and c.id = d.repaired_by
    left join person e on e.org = d.org and e.id = d.returned_by
    where ${where} order by d.raised_at desc, d.id limit ${limit}`,
    values,
  )
  return r.rows.map(defectOf)
}
