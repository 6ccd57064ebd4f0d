import {
  type DefectPage,
  photoLimit_bytes,
  raiseDefectRequest,
  repairRequest,
  returnRequest,
  stopsMachine,
} from '@geolabe/contract'
import { type Request, Router } from 'express'
import multer from 'multer'
import sharp from 'sharp'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { Problem } from '../http/problem'
import { notFound, reads, requireRole, uuidParam, whoOf, writes } from '../http/routes'
import { defectsWhere } from './read'

const pageSize = 50

async function one(tx: Tx, id: string) {
  const found = (await defectsWhere(tx, 'd.id = $1', [id], 1))[0]
  if (!found) throw notFound('This defect')
  return found
}

/** Open ones, or all; paged by the moment they were raised. */
async function list(tx: Tx, req: Request): Promise<DefectPage> {
  const before = z.iso.datetime({ offset: true }).optional().safeParse(req.query.before)
  if (!before.success) throw new Problem(422, 'bad-input', 'Give a moment as the last page did.', 'before')
  const conditions = [req.query.all === undefined ? "d.state <> 'returned'" : 'true', before.data ? 'd.raised_at < $1' : 'true']
  const defects = await defectsWhere(tx, conditions.join(' and '), before.data ? [before.data] : [], pageSize + 1)
  const page = defects.slice(0, pageSize)
  return { defects: page, next: defects.length > pageSize ? (page[page.length - 1]?.raised.at ?? null) : null }
}

export function defectRoutes(db: Database): Router {
  const router = Router()
  router.get('/defects', reads(db, list))
  router.get(
    '/defects/:id',
    reads(db, (tx, req) => one(tx, uuidParam(req))),
  )

  router.post(
    '/defects',
    writes(db, raiseDefectRequest, async (tx, d) => {
      await tx.query(
        `insert into defect (org, id, machine, shift, item, place_on_machine, words, grade, raised_by) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
        [tx.who.org, d.id, d.machine, d.shift, d.item, d.where, d.words, d.grade, tx.who.person],
      )
      await tx.journal('defect-raised', d.id, {
        machine: d.machine,
        where: d.where,
        words: d.words,
        grade: d.grade,
        stops: stopsMachine(d.grade),
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
      await requireRole(tx, 'person-in-charge', 'The person in charge acknowledges a defect.')
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
      if (stopsMachine(before.grade) && !before.repair) throw new Problem(409, 'no-repair', 'A repair has to be recorded first.')
      await tx.query(move('returned', 'returned_by = $2, returned_at = now(), return_words = $3'), [id, tx.who.person, words])
      await tx.journal('defect-returned', id, { words, machine: before.machine.id })
      return one(tx, id)
    }),
  )

  const upload = multer({ storage: multer.memoryStorage(), limits: { fileSize: photoLimit_bytes, files: 1 } }).single('photo')

  router.put('/defects/:id/photos/:photo', upload, async (req, res) => {
    const [defect, photo] = [uuidParam(req), uuidParam(req, 'photo')]
    const file = req.file
    if (!file) throw new Problem(422, 'no-photo', 'Attach one picture in the field “photo”.', 'photo')
    const kept = await readable(file.buffer)
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

/** Decoded and encoded anew: proves that it is a picture, bounds its size, and leaves its metadata behind. */
async function readable(bytes: Buffer): Promise<Buffer> {
  try {
    return await sharp(bytes, { limitInputPixels: 50_000_000 })
      .rotate()
      .resize(1600, 1600, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 80 })
      .toBuffer()
  } catch {
    throw new Problem(
      422,
      'unreadable-photo',
      'This file is not a picture that can be read. Take it again or choose another; the defect itself is kept.',
      'photo',
    )
  }
}
