import type { Defect, DefectState, Grade, PersonRef, Spot } from '@geolabe/contract'
import { watchIsOver } from '@geolabe/core'
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
  acknowledged_by: string | null
  acknowledged_name: string | null
  acknowledged_at: Date | null
  repaired_by: string | null
  repaired_name: string | null
  repaired_at: Date | null
  repair: { words: string; parts: string; hours: number } | null
  returned_by: string | null
  returned_name: string | null
  returned_at: Date | null
  return_words: string | null
  raised_grade: Grade
  pending: boolean
  spot: Spot | null
  verified_by: string | null
  verified_name: string | null
  verified_at: Date | null
  verify_words: string | null
  watched_by: string | null
  watched_name: string | null
  watched_at: Date | null
  watch_until: string | null
  watch_hours: number | null
  watch_words: string | null
  accepted_by: string | null
  accepted_name: string | null
  accepted_at: Date | null
  accept_words: string | null
  worsened_at: Date | null
  meter: number | null
  photos: string[] | null
  notes: Defect['notes'] | null
  steps: Defect['steps'] | null
  contacts: { person: PersonRef; standIn: PersonRef }[] | null
}

function step(id: string | null, name: string | null, at: Date | null) {
  return id && at ? { by: { id, name: name ?? '' }, at: at.toISOString() } : null
}

function defectOf(r: Row): Defect {
  const acknowledged = step(r.acknowledged_by, r.acknowledged_name, r.acknowledged_at)
  const repaired = step(r.repaired_by, r.repaired_name, r.repaired_at)
  const returned = step(r.returned_by, r.returned_name, r.returned_at)
  const verified = step(r.verified_by, r.verified_name, r.verified_at)
  const watched = step(r.watched_by, r.watched_name, r.watched_at)
  const accepted = step(r.accepted_by, r.accepted_name, r.accepted_at)
  const until = { date: r.watch_until, hours: r.watch_hours }
  return {
    id: r.id,
    machine: { id: r.machine, name: r.machine_name },
    item: r.item,
    where: r.place_on_machine,
    words: r.words,
    grade: r.grade,
    raisedGrade: r.raised_grade,
    pending: r.pending,
    state: r.state,
    spot: r.spot,
    raised: { by: { id: r.raised_by, name: r.raised_name }, at: r.raised_at.toISOString() },
    acknowledged,
    repair: repaired && r.repair ? { ...repaired, ...r.repair } : null,
    returned: returned && { ...returned, words: r.return_words ?? '' },
    verified: verified && { ...verified, words: r.verify_words ?? '' },
    watched: watched && {
      ...watched,
      words: r.watch_words ?? '',
      untilDate: until.date,
      untilHours: until.hours,
      over: r.state === 'watched' && watchIsOver(until, new Date().toISOString().slice(0, 10), r.meter),
    },
    accepted: accepted && { ...accepted, words: r.accept_words ?? '' },
    worsenedAt: r.worsened_at?.toISOString() ?? null,
    notes: (r.notes ?? []).map((n) => ({ ...n, at: new Date(n.at).toISOString() })),
    steps: (r.steps ?? []).map((x) => ({ ...x, at: new Date(x.at).toISOString() })),
    contacts: r.contacts ?? [],
    photos: r.photos ?? [],
  }
}

/** Defects by a condition over `d`, newest first. */
export async function defectsWhere(tx: Tx, where: string, values: unknown[], limit: number): Promise<Defect[]> {
  const r = await tx.query<Row>(
    `select d.*, d.watch_until::text as watch_until, m.document->>'name' as machine_name, a.name as raised_name, b.name as acknowledged_name,
      c.name as repaired_name, e.name as returned_name, v.name as verified_name, w.name as watched_name, x.name as accepted_name,
      case when d.watch_hours is null then null else (select (s.handover->>'hours')::float8 from shift s where s.org = d.org
        and s.machine = d.machine and s.handover->>'hours' is not null order by s.opened_at desc limit 1) end as meter,
      (select array_agg(ph.id::text order by ph.id) from photo ph where ph.org = d.org and ph.defect = d.id) as photos,
      (select json_agg(json_build_object('id', n.id, 'kind', n.kind, 'words', n.words, 'at', n.at,
        'by', json_build_object('id', np.id, 'name', np.name)) order by n.at, n.id)
        from defect_note n join person np on np.org = n.org and np.id = n.by where n.org = d.org and n.defect = d.id) as notes,
      (select json_agg(json_build_object('action', t.action, 'words', t.words, 'at', t.at, 'grade', t.grade, 'detail', t.detail,
        'by', json_build_object('id', tp.id, 'name', tp.name)) order by t.n)
        from defect_step t join person tp on tp.org = t.org and tp.id = t.by where t.org = d.org and t.defect = d.id) as steps,
      (select json_agg(json_build_object('person', json_build_object('id', p1.id, 'name', p1.name),
        'standIn', json_build_object('id', p2.id, 'name', p2.name)) order by p1.id)
        from defect_contact dc join person p1 on p1.org = dc.org and p1.id = dc.person
        join person p2 on p2.org = dc.org and p2.id = dc.stand_in where dc.org = d.org) as contacts
    from (select * from defect d where ${where} order by d.raised_at desc, d.id limit ${limit}) d
    join machine m on m.org = d.org and m.id = d.machine
    join person a on a.org = d.org and a.id = d.raised_by
    left join person b on b.org = d.org and b.id = d.acknowledged_by
    left join person c on c.org = d.org and c.id = d.repaired_by
    left join person e on e.org = d.org and e.id = d.returned_by
    left join person v on v.org = d.org and v.id = d.verified_by
    left join person w on w.org = d.org and w.id = d.watched_by
    left join person x on x.org = d.org and x.id = d.accepted_by
    order by d.raised_at desc, d.id`,
    values,
  )
  return r.rows.map(defectOf)
}

/** Open: neither returned to service nor accepted as it is. */
export const isOpen = "d.state not in ('returned', 'accepted')"
