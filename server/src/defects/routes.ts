import {
  acceptRequest,
  type DefectPage,
  type DefectsFile,
  defectsToCsv,
  gradeRequest,
  gradeWords,
  noteRequest,
  photoLimit_bytes,
  raiseDefectRequest,
  repairRequest,
  returnRequest,
  stopsMachine,
  verifyRequest,
  watchRequest,
} from '@geolabe/contract'
import { type DefectAction, type DefectState, gradesFrom } from '@geolabe/core'
import { type Request, Router } from 'express'
import multer from 'multer'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { notFound, reads, uuidParam, whoOf, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import type { Photos } from '../photos/photos'
import { Problem } from '../problem/problem'
import { defectsWhere, isOpen } from './read'
import { stopTag } from './tag'

const pageSize = 50
/** Defects in one file; further back by machine. */
const exportLimit = 20_000

async function one(tx: Tx, id: string) {
  const found = (await defectsWhere(tx, 'd.id = $1', [id], 1))[0]
  if (!found) throw notFound('This defect')
  return found
}

const text = z.string().max(80).optional()

/** Open ones, or all; of one machine or grade; paged by the moment they were raised. */
export async function readDefects(tx: Tx, req: Pick<Request, 'query'>): Promise<DefectPage> {
  const before = z.iso.datetime({ offset: true }).optional().safeParse(req.query.before)
  if (!before.success) throw new Problem(422, 'bad-input', 'Give a moment as the last page did.', 'before')
  const values: unknown[] = []
  const where = [req.query.all === undefined ? isOpen : 'true']
  const add = (condition: string, value: string | undefined) => {
    if (value === undefined) return
    values.push(value)
    where.push(condition.replace('?', `$${values.length}`))
  }
  add('d.raised_at < ?', before.data)
  add('d.machine = ?', text.parse(req.query.machine))
  add('d.grade = ?', text.parse(req.query.grade))
  const defects = await defectsWhere(tx, where.join(' and '), values, pageSize + 1)
  const page = defects.slice(0, pageSize)
  return { defects: page, next: defects.length > pageSize ? (page[page.length - 1]?.raised.at ?? null) : null }
}

export function defectRoutes(db: Database, photos: Photos): Router {
  const router = Router()
  router.get('/defects', reads(db, readDefects))
  router.get(
    '/defects/:id',
    reads(db, (tx, req) => one(tx, uuidParam(req))),
  )

  router.post(
    '/defects',
    writes(db, raiseDefectRequest, async (tx, d) => {
      const found =
        d.item === null
          ? undefined
          : (await machineNamed(tx, d.machine)).walkround.zones.flatMap((z) => z.items).find((i) => i.id === d.item)
      if (!gradesFrom(found?.leastGrade).includes(d.grade)) {
        throw new Problem(
          422,
          'too-mild',
          `A fault in “${found?.label}” impediments the machine: grade it ${gradeWords[found?.leastGrade ?? d.grade].label.toLowerCase()} or graver.`,
          'grade',
        )
      }
      await tx.query(
        `insert into defect (org, id, machine, shift, item, place_on_machine, words, grade, raised_grade, raised_by, spot)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $8, $9, $10)`,
        [
          tx.who.org,
          d.id,
          d.machine,
          d.shift,
          d.item,
          d.where,
          d.words,
          d.grade,
          tx.who.person,
          d.spot ? JSON.stringify(d.spot) : null,
        ],
      )
      await tx.journal('defect-raised', d.id, {
        machine: d.machine,
        where: d.where,
        words: d.words,
        grade: d.grade,
        stops: (await one(tx, d.id)).pending || stopsMachine(d.grade),
      })
      return one(tx, d.id)
    }),
  )

  /** One step of a defect's life: the database decides whether it is this person's part and possible as things stand. */
  const step = <S extends z.ZodType>(
    schema: S,
    of: (body: z.output<S>) => { action: DefectAction; words: string; detail?: object; kind: string; tell?: object },
  ) =>
    writes(db, schema, async (tx: Tx, body: z.output<S>, req: Request) => {
      const id = uuidParam(req)
      const before = await one(tx, id)
      const { action, words, detail = {}, kind, tell = {} } = of(body)
      try {
        await tx.query('select defect_move($1, $2, $3, $4)', [id, action, words, JSON.stringify(detail)])
      } catch (e) {
        throw refusedStep(e, action, before.state) ?? e
      }
      await tx.journal(kind, id, { machine: before.machine.id, words, ...tell })
      return one(tx, id)
    })

  router.post(
    '/defects/:id/acknowledge',
    step(z.strictObject({}), () => ({ action: 'acknowledge', words: '', kind: 'defect-acknowledged' })),
  )
  router.post(
    '/defects/:id/repair',
    step(repairRequest, (b) => ({ action: 'repair', words: b.words, detail: b, kind: 'defect-repaired', tell: b })),
  )
  router.post(
    '/defects/:id/return',
    step(returnRequest, (b) => ({ action: 'return', words: b.words, kind: 'defect-returned' })),
  )
  router.post(
    '/defects/:id/verify',
    step(verifyRequest, (b) =>
      b.inOrder
        ? { action: 'verify', words: b.words, kind: 'defect-verified' }
        : { action: 'send-back', words: b.words, kind: 'defect-sent-back' },
    ),
  )
  router.post(
    '/defects/:id/watch',
    step(watchRequest, (b) => ({
      action: 'watch',
      words: b.words,
      detail: { until_date: b.untilDate, until_hours: b.untilHours },
      kind: 'defect-watched',
      tell: { untilDate: b.untilDate, untilHours: b.untilHours },
    })),
  )
  router.post(
    '/defects/:id/accept',
    step(acceptRequest, (b) => ({ action: 'accept', words: b.words, kind: 'defect-accepted' })),
  )
  // On a forklift: the person in charge grades what stopped it, as it was raised or graver.
  router.post(
    '/defects/:id/grade',
    step(gradeRequest, (b) => ({
      action: 'grade',
      words: b.words,
      detail: { grade: b.grade },
      kind: 'defect-graded',
      tell: { grade: b.grade },
    })),
  )

  // Anybody may add to it; one that has worsened is shown so to all who follow, and may only be graded graver.
  router.post(
    '/defects/:id/notes',
    writes(db, noteRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const d = await one(tx, id)
      if (b.worsened) {
        try {
          await tx.query('select defect_move($1, $2, $3, $4)', [id, 'worsen', b.words, JSON.stringify({ grade: b.grade })])
        } catch (e) {
          throw refusedStep(e, 'worsen', d.state) ?? e
        }
      } else {
        await tx.query("insert into defect_note (org, id, defect, kind, words, by) values ($1, $2, $3, 'note', $4, $5)", [
          tx.who.org,
          b.id,
          id,
          b.words,
          tx.who.person,
        ])
      }
      await tx.journal(b.worsened ? 'defect-worsened' : 'defect-noted', id, {
        machine: d.machine.id,
        words: b.words,
        ...(b.worsened && b.grade ? { grade: b.grade } : {}),
      })
      return one(tx, id)
    }),
  )

  router.get('/defects/:id/tag.pdf', async (req, res) => {
    const { d, name } = await db.as(whoOf(req), async (tx) => {
      const found = await one(tx, uuidParam(req))
      return { d: found, name: (await machineNamed(tx, found.machine.id)).kind.label }
    })
    res.type('application/pdf').setHeader('Content-Disposition', `inline; filename="stop-tag-${d.machine.id}.pdf"`)
    const address = `${req.protocol}://${req.get('host')}/defects/${d.id}`
    ;(await stopTag(d, name, address)).pipe(res)
  })

  router.get('/exports/defects.json', async (req, res) => {
    const who = whoOf(req)
    const defects = await db.as(who, (tx) => defectsWhere(tx, 'true', [], exportLimit))
    const file: DefectsFile = {
      format: 'geolabe.defects/1',
      exportedAt: new Date().toISOString(),
      organisation: who.org,
      defects,
    }
    res.setHeader('Content-Disposition', 'attachment; filename="defects.json"')
    res.json(file)
  })
  router.get('/exports/defects.csv', async (req, res) => {
    const defects = await db.as(whoOf(req), (tx) => defectsWhere(tx, 'true', [], exportLimit))
    res.setHeader('Content-Disposition', 'attachment; filename="defects.csv"')
    res.type('text/csv').send(defectsToCsv(defects))
  })

  const upload = multer({ storage: multer.memoryStorage(), limits: { fileSize: photoLimit_bytes, files: 1 } }).single('photo')

  router.put('/defects/:id/photos/:photo', upload, async (req, res) => {
    const [defect, photo] = [uuidParam(req), uuidParam(req, 'photo')]
    const file = req.file
    if (!file) throw new Problem(422, 'no-photo', 'Attach one picture in the field “photo”.', 'photo')
    const kept = await photos.readable(file.buffer)
    await db.as(whoOf(req), async (tx) => {
      await one(tx, defect)
      // The photo's own id makes sending it twice harmless.
      const added = await tx.query(
        'insert into photo (org, id, defect, mime, bytes) values ($1, $2, $3, $4, $5) on conflict do nothing',
        [tx.who.org, photo, defect, 'image/jpeg', kept],
      )
      if (added.rowCount) await tx.journal('defect-photo', defect, { photo, bytes: kept.length })
    })
    res.json({ id: photo })
  })

  router.get('/photos/:id', async (req, res) => {
    const found = await db.as(whoOf(req), (tx) =>
      tx.query<{ mime: string; bytes: Buffer }>('select mime, bytes from photo where id = $1', [uuidParam(req)]),
    )
    const row = found.rows[0]
    if (!row) throw notFound('This photo')
    res.setHeader('Cache-Control', 'private, max-age=31536000, immutable')
    res.type(row.mime).send(row.bytes)
  })
  return router
}

const partWords: Record<DefectAction, string> = {
  acknowledge: 'The named contact, the stand-in or the person in charge acknowledges.',
  grade: 'The person in charge grades it.',
  repair: 'A fitter records the repair.',
  verify: 'A fitter or the person in charge looks at a repair, another than who made it.',
  'send-back': 'A fitter or the person in charge sends a repair back.',
  watch: 'The person in charge decides this.',
  accept: 'The person in charge decides this.',
  return: 'The person in charge returns a machine to service.',
  worsen: 'Sign on to say that it has worsened.',
}

/** What the database refused, in words for this step. */
function refusedStep(e: unknown, action: DefectAction, state: DefectState): Problem | null {
  const code = typeof e === 'object' && e !== null && 'code' in e ? e.code : null
  if (code === 'GL003') return new Problem(403, 'not-your-part', partWords[action])
  if (code === 'GL006') return new Problem(403, 'own-repair', 'You recorded this repair; somebody else has to do this.')
  if (code === 'GL007')
    return new Problem(409, 'stops-machine', 'What stops a machine, or waits to be graded, is not watched or accepted as it is.')
  if (code === 'GL008') return new Problem(409, 'milder', 'A defect is never graded milder than it was.', 'grade')
  if (code !== 'GL004') return null
  if (action === 'return' && state === 'repaired')
    return new Problem(409, 'not-verified', 'Another than who repaired it has to look at it first.')
  if (action === 'return' && (state === 'raised' || state === 'acknowledged' || state === 'watched'))
    return new Problem(409, 'no-repair', 'A repair has to be recorded first.')
  if ((action === 'verify' || action === 'send-back') && state !== 'repaired' && state !== 'verified')
    return new Problem(409, 'no-repair', 'There is no repair waiting to be looked at.')
  if (action === 'worsen' && (state === 'repaired' || state === 'verified'))
    return new Problem(409, 'wrong-state', 'It is repaired; raise what you see now as a new defect.')
  return new Problem(409, 'wrong-state', 'This is not possible as things stand now. Look again and decide.')
}
