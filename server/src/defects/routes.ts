import {
  acceptRequest,
  type DefectPage,
  type DefectsFile,
  defectsToCsv,
  gradeRequest,
  noteRequest,
  photoLimit_bytes,
  raiseDefectRequest,
  repairRequest,
  returnRequest,
  stopsMachine,
  verifyRequest,
  watchRequest,
} from '@geolabe/contract'
import { isGraver, mayBecome } from '@geolabe/core'
import { type Request, Router } from 'express'
import multer from 'multer'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { Problem } from '../http/problem'
import { notFound, reads, requireRole, uuidParam, whoOf, writes } from '../http/routes'
import type { Photos } from '../photos/photos'
import { machineNamed } from '../yard/yard'
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

  const move = (state: string, set: string) => `update defect set state = '${state}', ${set} where id = $1`

  router.post(
    '/defects/:id/seen',
    writes(db, z.strictObject({}), async (tx, _b, req) => {
      const id = uuidParam(req)
      await one(tx, id)
      await tx.query(move('seen', 'seen_by = $2, seen_at = now()'), [id, tx.who.person])
      await tx.journal('defect-seen', id, {})
      return one(tx, id)
    }),
  )

  router.post(
    '/defects/:id/repair',
    writes(db, repairRequest, async (tx, repair, req) => {
      const id = uuidParam(req)
      await one(tx, id)
      await requireRole(tx, 'fitter', 'A fitter records the repair.')
      await tx.query(move('repaired', 'repaired_by = $2, repaired_at = now(), repair = $3'), [
        id,
        tx.who.person,
        JSON.stringify(repair),
      ])
      await tx.journal('defect-repaired', id, repair)
      return one(tx, id)
    }),
  )

  router.post(
    '/defects/:id/return',
    writes(db, returnRequest, async (tx, { words }, req) => {
      const id = uuidParam(req)
      const before = await one(tx, id)
      await requireRole(tx, 'person-in-charge', 'The person in charge returns a machine to service.')
      if (!before.repair) throw new Problem(409, 'no-repair', 'A repair has to be recorded first.')
      if (!before.verified) throw new Problem(409, 'not-verified', 'Another than who repaired it has to look at it first.')
      await tx.query(move('returned', 'returned_by = $2, returned_at = now(), return_words = $3'), [id, tx.who.person, words])
      await tx.journal('defect-returned', id, { words, machine: before.machine.id })
      return one(tx, id)
    }),
  )

  router.post(
    '/defects/:id/verify',
    writes(db, verifyRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const d = await one(tx, id)
      if (d.state !== 'repaired') throw new Problem(409, 'no-repair', 'There is no repair waiting to be looked at.')
      if (d.repair?.by.id === tx.who.person) {
        throw new Problem(403, 'own-repair', 'You recorded this repair; somebody else has to look at it.')
      }
      if (b.inOrder) {
        await tx.query(move('verified', 'verified_by = $2, verified_at = now(), verify_words = $3'), [id, tx.who.person, b.words])
      } else {
        await tx.query("update defect set state = 'seen' where id = $1", [id])
        await tx.query(
          "insert into defect_note (org, id, defect, kind, words, by) values ($1, gen_random_uuid(), $2, 'note', $3, $4)",
          [tx.who.org, id, `Repair not in order: ${b.words}`.slice(0, 2000), tx.who.person],
        )
      }
      await tx.journal(b.inOrder ? 'defect-verified' : 'defect-sent-back', id, { machine: d.machine.id, words: b.words })
      return one(tx, id)
    }),
  )

  const decided = async (tx: Tx, id: string, to: 'watched' | 'accepted') => {
    const d = await one(tx, id)
    await requireRole(tx, 'person-in-charge', 'The person in charge decides this.')
    if (stopsMachine(d.grade)) {
      throw new Problem(409, 'stops-machine', 'What stops a machine is repaired; it cannot be watched or accepted as it is.')
    }
    if (d.pending) throw new Problem(409, 'not-graded', 'Grade it first.')
    if (!mayBecome(d.state, to, d.grade)) {
      throw new Problem(409, 'wrong-state', 'This is not possible as things stand now. Look again and decide.')
    }
    return d
  }
  router.post(
    '/defects/:id/watch',
    writes(db, watchRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const d = await decided(tx, id, 'watched')
      await tx.query(
        "update defect set state = 'watched', watched_by = $2, watched_at = now(), watch_until = $3, watch_hours = $4, watch_words = $5 where id = $1",
        [id, tx.who.person, b.untilDate, b.untilHours, b.words],
      )
      await tx.journal('defect-watched', id, { machine: d.machine.id, ...b })
      return one(tx, id)
    }),
  )
  router.post(
    '/defects/:id/accept',
    writes(db, acceptRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const d = await decided(tx, id, 'accepted')
      await tx.query(move('accepted', 'accepted_by = $2, accepted_at = now(), accept_words = $3'), [id, tx.who.person, b.words])
      await tx.journal('defect-accepted', id, { machine: d.machine.id, words: b.words })
      return one(tx, id)
    }),
  )

  // On a forklift: the person in charge grades what stopped it, as it was raised or graver.
  router.post(
    '/defects/:id/grade',
    writes(db, gradeRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const d = await one(tx, id)
      await requireRole(tx, 'person-in-charge', 'The person in charge grades it.')
      if (b.grade !== d.grade && !isGraver(b.grade, d.grade)) {
        throw new Problem(409, 'milder', 'A defect is never graded milder than it was raised.', 'grade')
      }
      await tx.query('update defect set grade = $2, pending = false where id = $1', [id, b.grade])
      await tx.query(
        "insert into defect_note (org, id, defect, kind, words, by) values ($1, gen_random_uuid(), $2, 'graded', $3, $4)",
        [tx.who.org, id, b.words, tx.who.person],
      )
      await tx.journal('defect-graded', id, { machine: d.machine.id, grade: b.grade, words: b.words })
      return one(tx, id)
    }),
  )

  // Anybody may add to it; one that has grown is shown so to all who follow, and may only be graded graver.
  router.post(
    '/defects/:id/notes',
    writes(db, noteRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const d = await one(tx, id)
      if (b.grade !== null && b.grade !== d.grade && !isGraver(b.grade, d.grade)) {
        throw new Problem(409, 'milder', 'A defect is never graded milder than it was raised.', 'grade')
      }
      await tx.query('insert into defect_note (org, id, defect, kind, words, by) values ($1, $2, $3, $4, $5, $6)', [
        tx.who.org,
        b.id,
        id,
        b.grown ? 'grown' : 'note',
        b.words,
        tx.who.person,
      ])
      if (b.grown) {
        await tx.query(
          "update defect set grown_at = now(), grade = coalesce($2, grade), state = case when state in ('watched', 'repaired', 'verified') then 'seen' else state end where id = $1",
          [id, b.grade],
        )
      }
      await tx.journal(b.grown ? 'defect-grown' : 'defect-noted', id, {
        machine: d.machine.id,
        words: b.words,
        ...(b.grown && b.grade ? { grade: b.grade } : {}),
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
