import {
  type PracticeGames,
  type PracticePage,
  type PracticeRecord,
  type PracticeResult,
  type PracticeRun,
  practiceRequest,
} from '@geolabe/contract'
import { type Machine, parseOrRefuse, type RatingTable } from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import type { SlowWork } from '../calc/pool'
import type { Database, Tx } from '../db/database'
import { keyOf, reads, whoOf, writes } from '../http/routes'
import type { SigningKey } from '../key/signing'
import { joinOwn } from '../library/machine'
import { revisionInUse, tablesOf } from '../library/table'
import { Problem } from '../problem/problem'
import { certificateRoutes } from './certificates'
import { examRoutes, refuseFasterThanTime, refuseOtherThanTry } from './exams'
import { offeredOn } from './games'
import { learn, readPoints } from './points'
import { readPractised } from './practised'
import { inUseNow } from './practised-on'
import { readProgress } from './progress'

const pageSize = 50
/** A device may have worked out a score a hair's breadth away. */
const sameScore = 1e-6

type Answer = { result: PracticeResult } | { refused: { code: string; message: string; path: string } }

interface Row {
  id: string
  machine: string
  name: string
  machine_revision: number
  run: Pick<PracticeRun, 'level' | 'seed'>
  result: PracticeResult
  claimed: number | null
  at: Date
}

const recordOf = (r: Row): PracticeRecord => ({
  ...r.result,
  id: r.id,
  machine: r.machine,
  machineName: r.name,
  machineRevision: r.machine_revision,
  level: r.run.level,
  seed: r.run.seed,
  at: r.at.toISOString(),
  claimed: r.claimed,
})

const select = `select r.id, r.machine, m.document->>'name' as name, r.machine_revision, r.run - 'inputs' - 'keys' - 'answers' - 'notes' - 'acts' as run, r.result, r.claimed, r.at
  from practice_run r join machine m on m.org = r.org and m.id = r.machine`

const asked = z.object({
  machine: z.string().max(80).optional(),
  before: z
    .string()
    .regex(/^[^|]{1,40}\|[0-9a-f-]{36}$/, 'Give where the page before ended.')
    .optional(),
})

/** One's own runs, newest first. */
async function readRuns(tx: Tx, query: unknown): Promise<PracticePage> {
  const { machine, before } = parseOrRefuse(asked, query)
  const [at, id] = before?.split('|') ?? [null, null]
  if (at !== null && Number.isNaN(Date.parse(at ?? '')))
    throw new Problem(422, 'bad-input', 'Give where the page before ended.', 'before')
  const r = await tx.query<Row>(
    `${select} where ($1::text is null or r.machine = $1) and ($2::timestamptz is null or (r.at, r.id) < ($2, $3::uuid))
     order by r.at desc, r.id desc limit ${pageSize + 1}`,
    [machine ?? null, at ?? null, id ?? null],
  )
  const runs = r.rows.slice(0, pageSize).map(recordOf)
  const last = runs.at(-1)
  return { runs, next: r.rows.length > pageSize && last ? `${last.at}|${last.id}` : null }
}

/** What can be practised on each machine of the yard. */
async function readGames(tx: Tx): Promise<PracticeGames> {
  const r = await tx.query<{ document: Machine; own: Partial<Machine>; tables: RatingTable[] }>(
    `select m.document, jsonb_strip_nulls(jsonb_build_object('walkround', w.document, 'procedures', o.document)) as own,
       coalesce(json_agg(t.document order by t.id) filter (where t.id is not null), '[]') as tables from machine m ${joinOwn}
     left join (select t.org, t.machine, t.id, t.document from rating_table t
       join (${revisionInUse}) u on u.id = t.id and u.revision = t.revision) t on t.org = m.org and t.machine = m.id
     group by m.org, m.id, w.document, o.document order by m.id limit 500`,
  )
  return {
    machines: r.rows.map((m) => offeredOn({ ...m.document, ...m.own }, m.tables)),
  }
}

/**
 * Practice: a run is sent as its inputs, played again here and scored anew before it is kept. What the device made of it is kept beside it where
 * the two differ.
 */
export function practiceRoutes(db: Database, work: SlowWork, key: SigningKey): Router {
  const router = Router()
  router.use(examRoutes(db), certificateRoutes(db, key))
  router.get(
    '/practice/runs',
    reads(db, (tx, req) => readRuns(tx, req.query)),
  )
  router.get('/practice/games', reads(db, readGames))
  router.get('/practice/points', reads(db, readPoints))
  router.get('/practice/progress', reads(db, readProgress))
  router.get('/practice/practised', reads(db, readPractised))
  router.post('/practice/runs', async (req, res) => {
    keyOf(req)
    // Played before anything is written: it takes a second or two, and no transaction waits for it.
    const { run, score } = parseOrRefuse(practiceRequest, req.body ?? {})
    const [machine, tables] = await db.as(whoOf(req), async (tx) => {
      const { definition, orderRevision } = await inUseNow(tx, run.machine.id)
      const all = await tablesOf(tx, run.machine.id)
      await refuseOtherThanTry(tx, run, { machine: definition, tables: all })
      if (run.game === 'sequence' && run.order !== orderRevision)
        throw new Problem(
          422,
          'machine-changed',
          `The order of work of ${definition.name} has changed since this run; it counts for the order as it was.`,
          'run.order',
        )
      return [definition, all]
    })
    const answer = await work<Answer>({ practice: { machine, tables, run } })
    if (!answer) throw new Error('Playing a practice run again failed; see the log.')
    if ('refused' in answer) throw new Problem(422, answer.refused.code, answer.refused.message, `run.${answer.refused.path}`)
    const { result } = answer
    const claimed = Math.abs(result.score - score) > sameScore ? score : null
    await writes(db, practiceRequest, async (tx): Promise<PracticeResult & { id: string; claimed: number | null }> => {
      await refuseFasterThanTime(tx, run, result)
      await tx.query(
        `insert into practice_run (org, id, person, machine, machine_revision, game, run, result, score, claimed)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
        [
          tx.who.org,
          run.id,
          tx.who.person,
          run.machine.id,
          run.machine.revision,
          run.game,
          JSON.stringify(run),
          JSON.stringify(result),
          result.score,
          claimed,
        ],
      )
      await learn(tx, machine, result)
      return { ...result, id: run.id, claimed }
    })(req, res)
  })
  return router
}
