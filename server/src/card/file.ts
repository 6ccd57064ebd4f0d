import { createHash } from 'node:crypto'
import { canonical, type ImportedPage, type ImportedShift, type Recomputed, type ShiftFile, shiftFile } from '@geolabe/contract'
import { type Machine, type Place, parseOrRefuse, project, type RatingTable } from '@geolabe/core'
import type { Request } from 'express'
import { z } from 'zod'
import type { CalcPool } from '../calc/pool'
import type { Tx } from '../db/database'
import { defectsWhere } from '../defects/read'
import { notFound, requireAnyRole } from '../http/routes'
import { isGenuine, type SigningKey } from '../key/signing'
import { revisionOf } from '../library/documents'
import { machineTaken } from '../library/machine'
import { Problem } from '../problem/problem'
import { eventsOf } from '../shift/read'

const distinct = <T>(list: readonly T[], key: (t: T) => string) => [...new Map(list.map((t) => [key(t), t])).values()]

/** A shift with everything it rests on, in the very revisions it used, as one signed file. */
export async function exportShift(tx: Tx, id: string, key: SigningKey): Promise<ShiftFile> {
  const events = await eventsOf(tx, id)
  if (events.length === 0) throw notFound('This shift')
  const shift = project(events)
  const defects = await defectsWhere(tx, 'd.shift = $1', [id], 500)
  const versions = shift.lifts.map((l) => l.versions)
  const machines = await Promise.all(
    distinct(
      versions.map((v) => v.machine),
      (m) => `${m.id}/${m.revision}`,
    ).map(async (m) => ({
      revision: m.revision,
      document: await revisionOf<Machine>(tx, 'machine_revision', m.id, m.revision),
    })),
  )
  const places = await Promise.all(
    distinct(
      versions.map((v) => v.place),
      (p) => `${p.id}/${p.revision}`,
    ).map(async (p) => ({
      revision: p.revision,
      document: await revisionOf<Place>(tx, 'place_revision', p.id, p.revision),
    })),
  )
  const tables: RatingTable[] = []
  for (const t of distinct(
    versions.flatMap((v) => v.tables),
    (x) => `${x.id}/${x.revision}`,
  )) {
    const r = await tx.query<{ document: RatingTable }>('select document from rating_table where id = $1 and revision = $2', [
      t.id,
      t.revision,
    ])
    const document = r.rows[0]?.document
    if (!document) throw notFound(`Revision ${t.revision} of table ${t.id}`)
    tables.push(document)
  }
  const file: ShiftFile = {
    format: 'geolabe.shift/1',
    exportedAt: new Date().toISOString(),
    organisation: tx.who.org,
    shift,
    events,
    machine: await machineTaken(tx, id, shift.machine.id),
    used: { machines, places, tables },
    defects: defects.map((d) => ({
      id: d.id,
      machine: d.machine.id,
      shift: id,
      item: d.item,
      where: d.where,
      words: d.words,
      grade: d.grade,
      spot: d.spot,
      raisedBy: d.raised.by,
      raisedAt: d.raised.at,
    })),
  }
  return { ...file, signature: key.sign(file) }
}

/** A device's clock may be this far ahead of ours. */
const ahead_ms = 10 * 60_000

/** The shift of a file is what its events make of it: neither is believed without the other. */
function refuseOtherShift(file: ShiftFile): void {
  if (canonical(project(file.events)) !== canonical(file.shift))
    throw new Problem(422, 'not-its-events', 'The shift in this file is not what its events make of it.', 'events')
}

/** What of a file's own dates cannot be: worked after it was written, or after today. */
function refuseDates(file: ShiftFile): void {
  const late = (at: string | null, path: string) => {
    if (at !== null && Date.parse(at) > Math.min(Date.now(), Date.parse(file.exportedAt)) + ahead_ms)
      throw new Problem(422, 'in-the-future', 'This moment has not come yet; the file is not a record.', path)
  }
  if (Date.parse(file.exportedAt) > Date.now() + ahead_ms) late(file.exportedAt, 'exportedAt')
  late(file.shift.openedAt, 'shift.openedAt')
  late(file.shift.closedAt, 'shift.closedAt')
  file.shift.lifts.forEach((l, i) => {
    late(l.at, `shift.lifts.${i}.at`)
  })
}

/** Are its lifts what its own machine, place and tables make of them? @throws Problem 422 where that takes too long to say */
async function workedOutAgain(file: ShiftFile, pool: CalcPool): Promise<boolean> {
  try {
    const lifts = await pool.run({ file })
    if (!Array.isArray(lifts)) throw new Error('recomputing a file failed; see the log')
    return lifts.every((r: Recomputed) => r.equal)
  } catch (e) {
    if (!(e instanceof Problem) || e.code !== 'too-heavy') throw e
    const words = 'Working the lifts of this file out again takes too long. Nothing was taken in.'
    throw new Problem(422, 'too-heavy', words, 'shift.lifts')
  }
}

/**
 * Takes an exported shift in, all or nothing: as it was signed, kept whole beside our own records, marked with who took it in and
 * where it is from. It takes no machine, stops none, and needs none to be known here. The same file twice is one.
 *
 * @returns the shift's id, and whether it was new
 */
export async function importShift(
  tx: Tx,
  raw: unknown,
  pool: CalcPool,
): Promise<{ id: string; added: boolean; recomputes: boolean }> {
  await requireAnyRole(
    tx,
    ['person-in-charge', 'administrator'],
    'The person in charge or an administrator takes files from elsewhere in.',
  )
  const file = parseOrRefuse(shiftFile, raw)
  if (!file.signature)
    throw new Problem(
      422,
      'not-signed',
      'This file is not signed by the installation that it comes from. Export it again there.',
      'signature',
    )
  // As it came: what the schema fills in was not signed.
  if (!isGenuine(raw as ShiftFile))
    throw new Problem(
      422,
      'bad-signature',
      'This file is not as it was exported: its signature does not fit. Nothing was taken in.',
      'signature',
    )
  refuseDates(file)
  refuseOtherShift(file)
  const digest = createHash('sha256').update(canonical(raw)).digest('hex')
  const s = file.shift
  const recomputes = await workedOutAgain(file, pool)
  const before = await tx.query<{ digest: string; recomputes: boolean }>(
    'select digest, recomputes from imported_shift where id = $1',
    [s.id],
  )
  const here = before.rows[0]
  if (here) {
    if (here.digest === digest) return { id: s.id, added: false, recomputes: here.recomputes }
    throw new Problem(409, 'already-there', 'Another file of this shift was taken in before; it stays as it is.', 'shift.id')
  }
  await tx.query(
    `insert into imported_shift (org, id, digest, file, machine_name, place_name, operator_name, opened_at, closed_at, lifts,
       from_organisation, from_installation, exported_at, recomputes, imported_by)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)`,
    [
      tx.who.org,
      s.id,
      digest,
      JSON.stringify(raw),
      s.machine.name,
      s.place.name,
      s.operator.name,
      s.openedAt,
      s.closedAt,
      s.lifts.length,
      file.organisation,
      file.signature.installation,
      file.exportedAt,
      recomputes,
      tx.who.person,
    ],
  )
  await tx.journal('shift-imported', s.id, {
    from: file.organisation,
    installation: file.signature.installation,
    about: s.machine.id,
    operator: s.operator.name,
    recomputes,
  })
  return { id: s.id, added: true, recomputes }
}

const pageSize = 50

interface Row {
  id: string
  machine_name: string
  place_name: string
  operator_name: string
  opened_at: Date
  closed_at: Date | null
  lifts: number
  from_organisation: string
  from_installation: string
  exported_at: Date
  recomputes: boolean
  imported_by: string
  imported_name: string
  imported_at: Date
}

/** What was taken in, newest first by when it was; never the files themselves. */
export async function listImported(tx: Tx, req: Request, key: SigningKey): Promise<ImportedPage> {
  const before = z.iso.datetime({ offset: true }).optional().parse(req.query.before) ?? null
  const r = await tx.query<Row>(
    `select i.id, machine_name, place_name, operator_name, opened_at, closed_at, lifts, from_organisation, from_installation,
       exported_at, recomputes, imported_by, p.name as imported_name, imported_at
     from imported_shift i join person p on p.org = i.org and p.id = i.imported_by
     where $1::timestamptz is null or imported_at < $1 order by imported_at desc, i.id limit ${pageSize + 1}`,
    [before],
  )
  const shifts = r.rows.slice(0, pageSize).map(
    (x): ImportedShift => ({
      id: x.id,
      machine: x.machine_name,
      place: x.place_name,
      operator: x.operator_name,
      openedAt: x.opened_at.toISOString(),
      closedAt: x.closed_at?.toISOString() ?? null,
      lifts: x.lifts,
      from: {
        organisation: x.from_organisation,
        installation: x.from_installation,
        exportedAt: x.exported_at.toISOString(),
        ours: x.from_installation === key.id,
      },
      recomputes: x.recomputes,
      importedBy: { id: x.imported_by, name: x.imported_name },
      importedAt: x.imported_at.toISOString(),
    }),
  )
  return { shifts, next: r.rows.length > pageSize ? (shifts.at(-1)?.importedAt ?? null) : null }
}

/** One that was taken in, whole and as it came. */
export async function readImported(tx: Tx, id: string): Promise<unknown> {
  const r = await tx.query<{ file: unknown }>('select file from imported_shift where id = $1', [id])
  if (!r.rows[0]) throw notFound('This shift')
  return r.rows[0].file
}
