import { randomInt } from 'node:crypto'
import {
  type BegunTry,
  beginTryRequest,
  canonical,
  type Exam,
  type ExamPage,
  type ExamRequest,
  type ExamTry,
  examRequest,
  type Game,
  gamesIn,
  lastedOf,
  type PracticeResult,
  type PracticeRun,
  type TriedRun,
  type TryNote,
  type TrySoFar,
  type TryWatched,
  tryNoteRequest,
  trySoFar,
  wordRequest,
} from '@geolabe/contract'
import { checkInputs, type JudgedOn, type LoadSet, mistakesOn, planesOn, tick_s } from '@geolabe/core'
import { type Request, Router } from 'express'
import type { Database, Tx } from '../db/database'
import { notFound, reads, requireRole, uuidParam, writes } from '../http/routes'
import { tablesOf } from '../library/table'
import { Problem } from '../problem/problem'
import { offeredOn } from './games'
import { practisedNow, practisedNows } from './practised-on'

const mostExams = 100
const seeds = 2 ** 32

interface Row {
  id: string
  person: string
  person_name: string
  set_by: string
  set_by_name: string
  machine: string
  machine_name: string
  machine_revision: number
  practised_on: string
  game: Game
  level: number
  tries: number
  until: string
  settings: LoadSet | null
  word: boolean
  at: Date
  certificate: string | null
}

interface TryRow {
  id: string
  exam: string
  number: number
  seed: string
  begun_at: Date
  word_at: Date | null
}

interface KeptRow {
  id: string
  result: PracticeResult
  run: { seed: number; level: number; ticks?: number }
  claimed: number | null
  at: Date
}

interface NoteRow {
  id: string
  try: string
  at_s: number | null
  score: number | null
  words: string
  at: Date
}

const select = `select e.id, e.person, p.name as person_name, e.set_by, s.name as set_by_name, e.machine, m.document->>'name' as machine_name,
    e.machine_revision, e.practised_on, e.game, e.level, e.tries, e.until::text as until, e.settings, e.word, e.at, c.id as certificate
  from practice_exam e join person p on p.org = e.org and p.id = e.person join person s on s.org = e.org and s.id = e.set_by
  join machine m on m.org = e.org and m.id = e.machine left join practice_certificate c on c.org = e.org and c.exam = e.id`

const noteOf = ({ id, at_s, score, words, at }: NoteRow): TryNote => ({ id, at_s, score, words, at: at.toISOString() })

function examOf(
  r: Row,
  machineChanged: boolean,
  tries: readonly TryRow[],
  kept: readonly KeptRow[],
  notes: readonly NoteRow[],
): Exam {
  const made = tries
    .filter((t) => t.exam === r.id)
    .map((t): ExamTry => {
      const run = kept.find((k) => k.id === t.id)
      return {
        id: t.id,
        number: t.number,
        begunAt: t.begun_at.toISOString(),
        seed: Number(t.seed),
        wordAt: t.word_at?.toISOString() ?? null,
        result: run?.result ?? null,
        keptAt: run?.at.toISOString() ?? null,
        lasted_s: run ? lastedOf(run.run, run.result) : null,
        claimed: run?.claimed ?? null,
        notes: notes.filter((n) => n.try === t.id).map(noteOf),
      }
    })
  return {
    id: r.id,
    person: { id: r.person, name: r.person_name },
    assessor: { id: r.set_by, name: r.set_by_name },
    machine: { id: r.machine, name: r.machine_name, revision: r.machine_revision },
    machineChanged,
    game: r.game,
    level: r.level,
    tries: r.tries,
    until: r.until,
    settings: r.settings,
    word: r.word,
    setAt: r.at.toISOString(),
    made,
    certificate: r.certificate,
  }
}

/** Exams with their tries, as far as who asks sits or has set them. */
async function examsWhere(tx: Tx, where: string, values: unknown[]): Promise<Exam[]> {
  const exams = await tx.query<Row>(`${select} where ${where} order by e.at desc, e.id limit ${mostExams}`, values)
  const ids = exams.rows.map((e) => e.id)
  const tries = await tx.query<TryRow>(
    'select id, exam, number, seed, begun_at, word_at from practice_try where exam = any($1) order by number',
    [ids],
  )
  const kept = await tx.query<KeptRow>(
    "select r.id, r.result, r.run - 'inputs' - 'keys' - 'answers' - 'notes' - 'acts' as run, r.claimed, r.at from unnest($1::uuid[]) as e(id) cross join lateral runs_of_exam(e.id) r",
    [ids],
  )
  const notes = await tx.query<NoteRow>(
    'select id, try, at_s, score, words, at from practice_note where try = any($1) order by at, id',
    [tries.rows.map((t) => t.id)],
  )
  const all: Exam[] = []
  const now = practisedNows(tx)
  for (const e of exams.rows) {
    const { machine, digest } = await now(e.machine, e.game)
    const changed = machine.revision !== e.machine_revision || digest !== e.practised_on
    all.push(examOf(e, changed, tries.rows, kept.rows, notes.rows))
  }
  return all
}

/** @throws Problem 404 for who neither sits nor has set it */
export async function examNamed(tx: Tx, id: string): Promise<Exam> {
  const [exam] = await examsWhere(tx, 'e.id = $1', [id])
  if (!exam) throw notFound('This exam')
  return exam
}

async function setExam(tx: Tx, b: ExamRequest): Promise<Exam> {
  await requireRole(tx, 'assessor', 'Exams are set by an assessor.')
  if (b.person === tx.who.person)
    throw new Problem(403, 'own-exam', 'Nobody assesses themselves: choose somebody else.', 'person')
  const known = await tx.query<{ past: boolean }>('select $2::date < current_date as past from person where id = $1', [
    b.person,
    b.until,
  ])
  const person = known.rows[0]
  if (!person) throw notFound('This person')
  if (person.past) throw new Problem(422, 'bad-input', 'The last day of an exam is today or later.', 'until')
  if (b.settings && b.game !== 'load')
    throw new Problem(422, 'bad-input', 'Swing, wind and clock are set for load control alone: leave them out.', 'settings')
  const { machine, digest } = await practisedNow(tx, b.machine, b.game)
  if (!gamesIn(offeredOn(machine, await tablesOf(tx, machine.id))).includes(b.game))
    throw new Problem(
      422,
      'no-drives',
      `${machine.name} has no figures for this: choose another machine or another exercise.`,
      'game',
    )
  if (b.settings?.across && !planesOn(machine).includes('across'))
    throw new Problem(
      422,
      'bad-input',
      `Nothing on ${machine.name} moves its load across: let it swing along.`,
      'settings.across',
    )
  await tx.query(
    'insert into practice_exam (org, id, person, set_by, machine, machine_revision, practised_on, game, level, tries, until, settings, word) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)',
    [
      tx.who.org,
      b.id,
      b.person,
      tx.who.person,
      machine.id,
      machine.revision,
      digest,
      b.game,
      b.level,
      b.tries,
      b.until,
      b.settings && JSON.stringify(b.settings),
      b.word,
    ],
  )
  await tx.journal('exam-set', b.person, { exam: b.id, machine: machine.id, game: b.game, level: b.level })
  return examNamed(tx, b.id)
}

async function beginTry(tx: Tx, exam: Exam, id: string): Promise<BegunTry> {
  if (exam.person.id !== tx.who.person)
    throw new Problem(403, 'not-your-part', `This exam is ${exam.person.name}’s: nobody sits it for them.`)
  if (exam.machineChanged)
    throw new Problem(
      409,
      'machine-changed',
      `${exam.machine.name} has changed since this exam was set. The assessor sets it again.`,
    )
  if (exam.certificate) throw new Problem(409, 'exam-over', 'This exam is over: its certificate has been issued.')
  const seed = randomInt(seeds)
  await tx.query('insert into practice_try (org, id, exam, number, seed) values ($1, $2, $3, $4, $5)', [
    tx.who.org,
    id,
    exam.id,
    exam.made.length + 1,
    seed,
  ])
  return { id, seed, level: exam.level, settings: exam.settings, word: exam.word }
}

/**
 * A run that carries the id of a try is that try and no other.
 *
 * @param on what a round of judgement is drawn from; null where it is another game
 *
 * @throws Problem `exam-differs` naming what is another
 */
export async function refuseOtherThanTry(tx: Tx, run: PracticeRun, on: JudgedOn | null): Promise<void> {
  const r = await tx.query<{
    seed: string
    level: number
    machine: string
    machine_revision: number
    game: Game
    person: string
    settings: LoadSet | null
    waits: boolean
  }>(
    `select e.settings, e.word and t.word_at is null as waits, t.seed, e.level, e.machine, e.machine_revision, e.game, e.person from practice_try t
     join practice_exam e on e.org = t.org and e.id = t.exam where t.id = $1`,
    [run.id],
  )
  const of = r.rows[0]
  const set = run.game === 'load' ? (run.settings ?? null) : null
  if (!of) {
    if (set) throw new Problem(422, 'exam-differs', 'Swing, wind and clock are set by an assessor, for a try.', 'run.settings')
    return
  }
  if (of.waits)
    throw new Problem(422, 'exam-differs', 'This try waits for the assessor’s word; nothing of it counts before.', 'run.id')
  const differs = (
    [
      ['id', of.person === tx.who.person],
      ['game', of.game === run.game],
      ['machine', of.machine === run.machine.id && of.machine_revision === run.machine.revision],
      ['seed', Number(of.seed) === run.seed],
      ['level', of.level === run.level],
      ['settings', canonical(of.settings) === canonical(set)],
      // Nobody chooses what is asked of them.
      ['only', run.game !== 'judge' || (on !== null && mistakesOn(on).every((m) => run.only.includes(m)))],
      // An exam of signals has them answered.
      ['gave', run.game !== 'signal' || run.gave === undefined],
    ] as const
  ).find(([, same]) => !same)
  if (differs)
    throw new Problem(422, 'exam-differs', 'This run is not the try that it says it is; it is not kept.', `run.${differs[0]}`)
}

/** No machine has more axes than a run can name. */
const mostAxes = 8
/** A clock may be off by this much between two looks at it. */
const slack_s = 2

/**
 * A try that lasted longer than it has been since it began was not done by hand.
 *
 * @throws Problem `exam-differs`
 */
export const refuseFasterThanTime = (tx: Tx, run: PracticeRun, result: PracticeResult): Promise<void> =>
  refuseAheadOfTime(tx, run.id, lastedOf(run, result))

async function refuseAheadOfTime(tx: Tx, id: string, lasted_s: number | null): Promise<void> {
  const r = await tx.query<{ since_s: number }>(
    'select extract(epoch from clock_timestamp() - coalesce(word_at, begun_at))::float8 as since_s from practice_try where id = $1',
    [id],
  )
  if (r.rows[0] && lasted_s !== null && lasted_s > r.rows[0].since_s + slack_s)
    throw new Problem(422, 'exam-differs', 'This run lasted longer than it is since its try began; it is not kept.', 'run.inputs')
}

/**
 * How far a try has come, said by who sits it, for its assessor to watch. It is no record: the run counts as it is kept, and nothing else.
 *
 * @throws Problem `exam-differs` where it is another run than the try, or further than time
 */
async function tellSoFar(tx: Tx, id: string, { ticks, run }: TrySoFar): Promise<void> {
  if (run.id !== id)
    throw new Problem(422, 'exam-differs', 'This run is not the try that it says it is; it is not shown.', 'run.id')
  checkInputs(run.inputs, mostAxes, ticks)
  await refuseOtherThanTry(tx, run, null)
  await refuseAheadOfTime(tx, id, ticks * tick_s)
  await tx.query(
    `insert into practice_so_far (org, try, ticks, run) values ($1, $2, $3, $4)
     on conflict (org, try) do update set ticks = excluded.ticks, run = excluded.run`,
    [tx.who.org, id, ticks, JSON.stringify(run)],
  )
}

/** @throws Problem 404 for a try of another exam */
function tried(exam: Exam, req: Request): ExamTry {
  const of = exam.made.find((t) => t.id === uuidParam(req, 'try'))
  if (!of) throw notFound('This try')
  return of
}

/** Exams of practice: set by an assessor, sat try by try, noted; every try counts, kept or not. */
export function examRoutes(db: Database): Router {
  const router = Router()
  router.get(
    '/practice/exams',
    reads(db, async (tx): Promise<ExamPage> => ({ exams: await examsWhere(tx, 'true', []) })),
  )
  router.get(
    '/practice/exams/:id',
    reads(db, (tx, req) => examNamed(tx, uuidParam(req))),
  )
  router.post('/practice/exams', writes(db, examRequest, setExam))
  router.post(
    '/practice/exams/:id/tries',
    writes(db, beginTryRequest, async (tx, b, req) => beginTry(tx, await examNamed(tx, uuidParam(req)), b.id)),
  )
  router.post(
    '/practice/exams/:id/tries/:try/word',
    writes(db, wordRequest, async (tx, _b, req) => {
      const exam = await examNamed(tx, uuidParam(req))
      const of = tried(exam, req)
      if (exam.assessor.id !== tx.who.person)
        throw new Problem(403, 'not-your-part', `The word is ${exam.assessor.name}’s to give.`)
      if (!exam.word) throw new Problem(409, 'wrong-state', 'This exam waits for no word.')
      if (of.wordAt === null) await tx.query('update practice_try set word_at = clock_timestamp() where id = $1', [of.id])
      return examNamed(tx, exam.id)
    }),
  )
  router.get(
    '/practice/exams/:id/tries/:try',
    reads(db, async (tx, req): Promise<TriedRun> => {
      const r = await tx.query<{ run: PracticeRun }>('select run from runs_of_exam($1) where id = $2', [
        uuidParam(req),
        uuidParam(req, 'try'),
      ])
      if (!r.rows[0]) throw notFound('This try')
      return r.rows[0]
    }),
  )
  router.post(
    '/practice/exams/:id/tries/:try/so-far',
    writes(db, trySoFar, async (tx, b, req) => {
      const of = tried(await examNamed(tx, uuidParam(req)), req)
      if (!of.result) await tellSoFar(tx, of.id, b)
    }),
  )
  router.get(
    '/practice/exams/:id/tries/:try/so-far',
    reads(db, async (tx, req): Promise<TryWatched> => {
      const { id } = tried(await examNamed(tx, uuidParam(req)), req)
      const r = await tx.query<TrySoFar>('select ticks, run from practice_so_far where try = $1', [id])
      return { soFar: r.rows[0] ?? null }
    }),
  )
  router.post(
    '/practice/exams/:id/tries/:try/notes',
    writes(db, tryNoteRequest, async (tx, b, req) => {
      const exam = await examNamed(tx, uuidParam(req))
      const of = tried(exam, req)
      if (exam.assessor.id !== tx.who.person)
        throw new Problem(403, 'not-your-part', `Notes of this exam are ${exam.assessor.name}’s.`)
      if (exam.word && of.wordAt === null)
        throw new Problem(409, 'wrong-state', 'This try waits for your word; there is nothing to note yet.')
      if (exam.certificate) throw new Problem(409, 'wrong-state', 'The certificate has been issued; its notes stand as they are.')
      await tx.query('insert into practice_note (org, id, try, by, at_s, score, words) values ($1, $2, $3, $4, $5, $6, $7)', [
        tx.who.org,
        b.id,
        of.id,
        tx.who.person,
        b.at_s,
        b.score,
        b.words,
      ])
      return examNamed(tx, exam.id)
    }),
  )
  return router
}
