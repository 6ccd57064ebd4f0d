import {
  type CertificateLine,
  type CertificatePage,
  type CertificateRequest,
  certificateRequest,
  type Game,
  type PracticeCertificate,
  type PracticeRun,
} from '@geolabe/contract'
import { certificate_days, certificateSays } from '@geolabe/core'
import { Router } from 'express'
import type { Database, Tx } from '../db/database'
import { notFound, reads, requireRole, uuidParam, whoOf, writes } from '../http/routes'
import type { SigningKey } from '../key/signing'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { examNamed } from './exams'
import { certificateOnPaper } from './paper'
import { lessonsOf } from './points'
import { practisedNow, practisedNows, sha256 } from './practised-on'

const mostCertificates = 200

interface Row {
  document: PracticeCertificate
  kind: string
  machine: string
  practised_on: string
  expired: boolean
  days: number
}

/** Certificates of who asks, those that they issued, and all of them for those who decide who works a machine. */
async function rowsWhere(tx: Tx, where: string, values: unknown[]): Promise<Row[]> {
  const r = await tx.query<Row>(
    `select c.document, c.kind, c.machine, c.practised_on, c.valid_until < current_date as expired,
       (current_date - c.issued_on)::float8 as days
     from practice_certificate c
     where ${where} order by c.at desc, c.id limit ${mostCertificates}`,
    values,
  )
  return r.rows
}

/** Rows with how they stand today. */
async function linesOf(tx: Tx, rows: readonly Row[]): Promise<CertificateLine[]> {
  const now = practisedNows(tx)
  const lines: CertificateLine[] = []
  for (const { document: file, machine, practised_on, expired } of rows) {
    const same = expired || (await now(machine, file.game)).digest === practised_on
    lines.push({ file, state: expired ? 'expired' : same ? 'in-date' : 'earlier-machine' })
  }
  return lines
}

/** Of oneself, those in date: kind of machine, game, days ago. */
export async function ownCertificates(tx: Tx): Promise<{ kind: string; game: Game; days: number }[]> {
  const rows = await rowsWhere(tx, 'c.person = $1 and c.valid_until >= current_date', [tx.who.person])
  const lines = await linesOf(tx, rows)
  return rows
    .map(({ kind, document, days }) => ({ kind, game: document.game, days }))
    .filter((_, i) => lines[i]?.state === 'in-date')
}

async function certificateNamed(tx: Tx, id: string): Promise<CertificateLine> {
  const [line] = await linesOf(tx, await rowsWhere(tx, 'c.id = $1', [id]))
  if (!line) throw notFound('This certificate')
  return line
}

const dayAfter = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)

async function issue(tx: Tx, b: CertificateRequest, key: SigningKey): Promise<CertificateLine> {
  await requireRole(tx, 'assessor', 'Certificates are issued by an assessor.')
  const exam = await examNamed(tx, b.exam)
  if (exam.assessor.id !== tx.who.person)
    throw new Problem(403, 'not-your-part', `${exam.assessor.name} set this exam and issues its certificate.`)
  if (exam.certificate) throw new Problem(409, 'wrong-state', 'The certificate of this exam has been issued.')
  const { machine, digest } = await practisedNow(tx, exam.machine.id, exam.game)
  if (exam.machineChanged)
    throw new Problem(409, 'machine-changed', `${machine.name} has changed since this exam; it is set again.`)
  const runs: PracticeCertificate['runs'] = []
  for (const t of exam.made) {
    if (!t.result?.passed || t.keptAt === null) continue
    const kept = await tx.query<{ run: PracticeRun }>('select run from runs_of_exam($1) where id = $2', [exam.id, t.id])
    runs.push({
      id: t.id,
      seed: t.seed,
      at: t.keptAt,
      score: t.result.score,
      scoreByHand: t.notes.filter((n) => n.score !== null).at(-1)?.score ?? null,
      errors: lessonsOf(t.result).flatMap((l) => (l.right ? [] : [l.point])),
      sha256: sha256(kept.rows[0]?.run),
    })
  }
  if (runs.length === 0) throw new Problem(409, 'not-passed', 'No try of this exam was passed: there is nothing to certify.')
  const { organisation } = await readMe(tx)
  const unsigned: PracticeCertificate = {
    format: 'geolabe.certificate/1',
    id: b.id,
    says: certificateSays,
    organisation: { id: organisation.id, name: organisation.name },
    person: exam.person,
    machine: { id: machine.id, name: machine.name, kind: machine.kind.label, revision: machine.revision },
    game: exam.game,
    level: exam.level,
    settings: exam.settings,
    runs,
    triesMade: exam.made.length,
    assessor: exam.assessor,
    words: b.words,
    issuedOn: dayAfter(0),
    validUntil: dayAfter(certificate_days),
  }
  const file = { ...unsigned, signature: key.sign(unsigned) }
  await tx.query(
    `insert into practice_certificate (org, id, exam, person, by, machine, kind, document, practised_on, issued_on, valid_until)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
    [
      tx.who.org,
      b.id,
      exam.id,
      exam.person.id,
      tx.who.person,
      machine.id,
      machine.kind.id,
      JSON.stringify(file),
      digest,
      file.issuedOn,
      file.validUntil,
    ],
  )
  await tx.journal('certificate-issued', exam.person.id, {
    certificate: b.id,
    exam: exam.id,
    machine: machine.id,
    game: exam.game,
  })
  return { file, state: 'in-date' }
}

/** Certificates of practice: issued by who set the exam, signed by this installation, shown on paper and as a file. */
export function certificateRoutes(db: Database, key: SigningKey): Router {
  const router = Router()
  router.get(
    '/practice/certificates',
    reads(db, async (tx): Promise<CertificatePage> => ({ certificates: await linesOf(tx, await rowsWhere(tx, 'true', [])) })),
  )
  router.post(
    '/practice/certificates',
    writes(db, certificateRequest, (tx, b) => issue(tx, b, key)),
  )
  router.get(
    '/practice/certificates/:id',
    reads(db, (tx, req) => certificateNamed(tx, uuidParam(req))),
  )
  router.get('/practice/certificates/:id/certificate.json', async (req, res) => {
    const { file } = await db.as(whoOf(req), (tx) => certificateNamed(tx, uuidParam(req)))
    res.setHeader('Content-Disposition', `attachment; filename="certificate-${file.id}.json"`)
    res.json(file)
  })
  router.get('/practice/certificates/:id/certificate.pdf', async (req, res) => {
    const line = await db.as(whoOf(req), (tx) => certificateNamed(tx, uuidParam(req)))
    res.type('application/pdf').setHeader('Content-Disposition', `inline; filename="certificate-${line.file.id}.pdf"`)
    certificateOnPaper(line).pipe(res)
  })
  return router
}
