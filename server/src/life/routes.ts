import type { LifeLine } from '@geolabe/contract'
import { Router } from 'express'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { reads } from '../http/routes'
import { machineNamed } from '../library/machine'

const rows = 500

/** What happened to a machine over some days, on one time axis. */
async function lifeOf(tx: Tx, id: string, days: number): Promise<LifeLine> {
  const machine = await machineNamed(tx, id)
  const to = new Date()
  const from = new Date(to.getTime() - days * 86_400_000)
  const shifts = await tx.query<{
    id: string
    by: string
    name: string
    opened_at: Date
    closed_at: Date | null
    hours: number | null
  }>(
    `select s.id, s.operator as by, p.name, s.opened_at, s.closed_at, (s.handover->>'hours')::float8 as hours from shift s
     join person p on p.org = s.org and p.id = s.operator
     where s.machine = $1 and s.opened_at >= $2 order by s.opened_at desc limit ${rows}`,
    [id, from],
  )
  const defects = await tx.query<{
    id: string
    where: string
    words: string
    grade: string
    state: string
    from: Date
    to: Date | null
    repaired_at: Date | null
    repaired_by: string | null
    repaired_name: string | null
    repair: { words: string } | null
  }>(
    `select d.id, d.place_on_machine as where, d.words, d.grade, d.state, d.raised_at as from, coalesce(d.returned_at, d.accepted_at) as to,
      d.repaired_at, d.repaired_by, r.name as repaired_name, d.repair from defect d
     left join person r on r.org = d.org and r.id = d.repaired_by
     where d.machine = $1 and (d.raised_at >= $2 or coalesce(d.returned_at, d.accepted_at, now()) >= $2) order by d.raised_at desc limit ${rows}`,
    [id, from],
  )
  const duties = await tx.query<{ duty: string; on: string; words: string }>(
    `select duty, done_on::text as on, words from duty_done where machine = $1 and done_on >= $2 order by done_on desc limit ${rows}`,
    [id, from],
  )
  const readings = await tx.query<{ item: string; at: Date; value: number; because: string | null }>(
    `select item, at, reading as value, because from inspection_entry where machine = $1 and reading is not null and at >= $2 order by at desc limit ${rows * 20}`,
    [id, from],
  )
  return {
    from: from.toISOString(),
    to: to.toISOString(),
    shifts: shifts.rows.reverse().map((s) => ({
      id: s.id,
      by: { id: s.by, name: s.name },
      openedAt: s.opened_at.toISOString(),
      closedAt: s.closed_at?.toISOString() ?? null,
      hours: s.hours,
    })),
    defects: defects.rows.reverse().map((d) => ({
      id: d.id,
      where: d.where,
      words: d.words,
      grade: d.grade,
      state: d.state,
      from: d.from.toISOString(),
      to: d.to?.toISOString() ?? null,
    })),
    repairs: defects.rows.flatMap((d) =>
      d.repaired_at && d.repaired_by && d.repair
        ? [
            {
              defect: d.id,
              at: d.repaired_at.toISOString(),
              by: { id: d.repaired_by, name: d.repaired_name ?? d.repaired_by },
              words: d.repair.words,
            },
          ]
        : [],
    ),
    duties: duties.rows.reverse().map((d) => ({ ...d, label: machine.duties.find((x) => x.id === d.duty)?.label ?? d.duty })),
    readings: readings.rows
      .reverse()
      .map((r) => ({ item: r.item, at: r.at.toISOString(), value: r.value, replaced: r.because === 'replaced' })),
  }
}

export function lifeRoutes(db: Database): Router {
  const router = Router()
  router.get(
    '/machines/:id/life',
    reads(db, (tx, req) =>
      lifeOf(tx, String(req.params.id), z.coerce.number().int().min(1).max(800).catch(60).parse(req.query.days)),
    ),
  )
  return router
}
