import type { CheckDrawingRequest, DrawingPage, DrawnBefore, PlaceDrawing } from '@geolabe/contract'
import { type Place, parseOrRefuse, placeDefinition } from '@geolabe/core'
import type { Tx } from '../db/database'
import { notFound } from '../http/routes'
import { placeInUse, revisePlace } from '../library/place'
import { Problem } from '../problem/problem'

interface Row {
  id: string
  based_on: number
  revision: number | null
  document: PlaceDrawing
  why: string
  drawn_by: string
  drawn_by_name: string
  drawn_at: Date
  state: DrawnBefore['state']
  checked_by: string | null
  checked_by_name: string | null
  words: string
}

const drawnBefore = (r: Row): DrawnBefore => ({
  id: r.id,
  revision: r.revision,
  why: r.why,
  drawnBy: { id: r.drawn_by, name: r.drawn_by_name },
  drawnAt: r.drawn_at.toISOString(),
  state: r.state,
  checkedBy: r.checked_by === null ? null : { id: r.checked_by, name: r.checked_by_name ?? '' },
  words: r.words,
})

export async function readDrawings(tx: Tx, id: string): Promise<DrawingPage> {
  const { document: place, revision } = await placeInUse(tx, id)
  const r = await tx.query<Row>(
    `select d.*, p.name as drawn_by_name, c.name as checked_by_name from place_drawing d
     join person p on p.org = d.org and p.id = d.drawn_by left join person c on c.org = d.org and c.id = d.checked_by
     where d.place = $1 order by d.drawn_at desc limit 20`,
    [id],
  )
  const open = r.rows.find((x) => x.state === 'open')
  return {
    place,
    revision,
    waiting: open ? { ...drawnBefore(open), from: open.based_on, drawing: open.document } : null,
    before: r.rows.filter((x) => x !== open).map(drawnBefore),
  }
}

/** The place with a drawing in place of its own. @throws Refusal naming the feature and field that cannot be */
const drawnAs = (place: Place, { features, positions }: PlaceDrawing): Place =>
  parseOrRefuse(placeDefinition, { ...place, features, positions })

/** A drawing is kept until a second person has looked at it there; a newer one takes its place. */
export async function draw(
  tx: Tx,
  id: string,
  b: { id: string; from: number; why: string; drawing: PlaceDrawing },
): Promise<DrawingPage> {
  const stands = await placeInUse(tx, id)
  if (stands.revision !== b.from)
    throw new Problem(
      409,
      'changed-meanwhile',
      'Somebody changed this place meanwhile. Look at it again, then draw it once more.',
      'from',
    )
  const drawn = drawnAs(stands.document, b.drawing)
  await tx.query("update place_drawing set state = 'replaced' where place = $1 and state = 'open'", [id])
  const document = { features: drawn.features, positions: drawn.positions }
  await tx.query(
    'insert into place_drawing (org, id, place, based_on, document, why, drawn_by) values ($1, $2, $3, $4, $5, $6, $7)',
    [tx.who.org, b.id, id, b.from, JSON.stringify(document), b.why, tx.who.person],
  )
  await tx.journal('place-drawn', id, { drawing: b.id, from: b.from, why: b.why, features: drawn.features.length })
  return readDrawings(tx, id)
}

/** A second person says that it is so, and it counts from now on; or what is not so, and it goes back. */
export async function check(tx: Tx, id: string, b: CheckDrawingRequest): Promise<DrawingPage> {
  const { waiting } = await readDrawings(tx, id)
  if (waiting?.id !== b.id) throw notFound('A drawing that waits')
  const stands = await placeInUse(tx, id)
  if (b.ok && waiting.drawnBy.id === tx.who.person)
    throw new Problem(403, 'own-drawing', 'You drew this; somebody else looks at it there and checks it.', 'ok')
  if (b.ok && stands.revision !== waiting.from)
    throw new Problem(
      409,
      'changed-meanwhile',
      'This place changed since it was drawn. Draw it once more over what it is now.',
      'id',
    )
  const revision = b.ok ? stands.revision + 1 : null
  const state = b.ok ? 'taken' : 'returned'
  await tx.query(
    'update place_drawing set state = $2, revision = $3, checked_by = $4, checked_at = now(), words = $5 where id = $1',
    [b.id, state, revision, tx.who.person, b.words ?? ''],
  )
  if (b.ok) await revisePlace(tx, stands, drawnAs(stands.document, waiting.drawing))
  await tx.journal(b.ok ? 'drawing-checked' : 'drawing-returned', id, { drawing: b.id, revision, words: b.words ?? '' })
  return readDrawings(tx, id)
}
