import type { Game, PointLine, PracticePoints, PracticeResult } from '@geolabe/contract'
import {
  type Answered,
  calibrationFrom,
  calibrationOf,
  driveLessons,
  judgeLessons,
  type Lesson,
  loadLessons,
  type Machine,
  recallAfter,
  sequenceLessons,
  signalLessons,
  weakPointAfter,
} from '@geolabe/core'
import type { Tx } from '../db/database'

/** As many rounds back as how sure somebody is against how right is asked of. */
const rounds = 20

interface Row {
  point: PointLine['point']
  half_life_days: number
  ago_days: number
  due_days: number
}

/** What a run showed of each thing that can go wrong. */
export function lessonsOf(r: PracticeResult): Lesson[] {
  switch (r.game) {
    case 'load':
      return loadLessons(r)
    case 'judge':
      return judgeLessons(r)
    case 'signal':
      return signalLessons(r)
    case 'drive':
      return driveLessons(r)
    case 'sequence':
      return sequenceLessons(r)
  }
}

/** What a run showed is put down beside what was known of its weak points. */
export async function learn(tx: Tx, m: Pick<Machine, 'id' | 'kind'>, result: PracticeResult): Promise<void> {
  const kept = await tx.query<Row>(
    `select point, half_life_days, extract(epoch from now() - answered_at)::float8 / 86400 as ago_days,
       extract(epoch from due_at - now())::float8 / 86400 as due_days
     from practice_point where kind = $1 and game = $2 for update`,
    [m.kind.id, result.game],
  )
  for (const lesson of lessonsOf(result)) {
    const row = kept.rows.find((r) => r.point === lesson.point)
    const known = row && { halfLife_days: row.half_life_days, ago_days: row.ago_days, dueIn_days: row.due_days }
    const next = weakPointAfter(known ?? null, lesson)
    if (!next) continue
    await tx.query(
      `insert into practice_point (org, person, kind, game, point, machine, half_life_days, answered_at, due_at)
       values ($1, $2, $3, $4, $5, $6, $7, now() - $8 * interval '1 day', now() + $9 * interval '1 day')
       on conflict (org, person, kind, game, point) do update
       set machine = excluded.machine, half_life_days = excluded.half_life_days, answered_at = excluded.answered_at, due_at = excluded.due_at`,
      [tx.who.org, tx.who.person, m.kind.id, result.game, lesson.point, m.id, next.halfLife_days, next.ago_days, next.dueIn_days],
    )
  }
}

/** One's own weak points, what is due first; and how sure one was against how right. */
export async function readPoints(tx: Tx): Promise<PracticePoints> {
  const r = await tx.query<Row & { kind: string; game: Game; machine: string; name: string; due_at: Date }>(
    `select m.document->'kind'->>'label' as kind, p.game, p.point, p.machine, m.document->>'name' as name, p.due_at, p.half_life_days,
       extract(epoch from now() - p.answered_at)::float8 / 86400 as ago_days
     from practice_point p join machine m on m.org = p.org and m.id = p.machine order by p.due_at, p.point limit 200`,
  )
  const judged = await tx.query<{ answers: Answered[] }>(
    `select result->'answers' as answers from practice_run where game = 'judge' order by at desc, id desc limit ${rounds}`,
  )
  const all = judged.rows.flatMap(({ answers }) => answers.map((a) => ({ sure: a.sure / 100, right: a.right })))
  return {
    points: r.rows.map((p) => ({
      kind: p.kind,
      machine: p.machine,
      machineName: p.name,
      game: p.game,
      point: p.point,
      dueAt: p.due_at.toISOString(),
      recall_share: recallAfter(p.half_life_days, p.ago_days),
    })),
    calibration: all.length < calibrationFrom ? null : calibrationOf(all),
  }
}
