import { z } from 'zod'
import { parseOrRefuse } from '../calculator/define'
import { codeId } from '../quantity/name-id'
import { Refusal } from '../refusal'
import { symptomPath } from '../troubleshooting/path'
import { type Measure, measure } from './measure'
import { type WalkItem, type Walkround, walkItem, walkround, zoneHead } from './walkround'

/** A piece that many machines have: written once, placed many times. */
export const piecesFile = z.strictObject({
  format: z.literal('geolabe.pieces/1'),
  pieces: z.array(
    z.strictObject({
      id: codeId,
      label: z.string().min(1),
      /** The first item takes the place's own id; further ones add theirs. */
      items: z.array(walkItem.omit({ piece: true, shuts: true }).extend({ label: z.string() })).min(1),
    }),
  ),
  /** Ways from a symptom to its end that several machines share. */
  symptoms: z.array(symptomPath).default([]),
})
export type PiecesFile = z.infer<typeof piecesFile>
export type Piece = PiecesFile['pieces'][number]

/** One piece in one place on one machine. */
const placedPiece = z.strictObject({
  piece: codeId,
  id: codeId,
  label: z.string().min(1),
  where: z.string().min(1).optional(),
  cover: z.string().min(1).optional(),
  mayBeMissing: z.boolean().optional(),
  occasions: walkItem.shape.occasions,
  leastGrade: walkItem.shape.leastGrade,
  /** Said of this place besides what the piece says. */
  also: z.string().min(1).optional(),
  /** This machine's own measure in place of the piece's, by item of the piece; null for none, and a further item is left out. */
  measures: z.record(z.string(), measure.nullable()).optional(),
})

/** A walk-round as it is written and exchanged: items, and shared pieces placed by name. */
export const walkroundTemplate = z.strictObject({
  format: z.literal('geolabe.walkround/1'),
  machine: codeId,
  revision: z.int().min(1),
  before: z.array(z.string().min(1)),
  zones: z
    .array(
      z.strictObject({
        ...zoneHead,
        items: z.array(z.union([placedPiece, walkItem])).min(1, 'A zone needs at least one item.'),
      }),
    )
    .min(1, 'A walk-round needs at least one zone.'),
})
export type WalkroundTemplate = z.infer<typeof walkroundTemplate>

const isPlaced = (x: WalkroundTemplate['zones'][number]['items'][number]): x is z.infer<typeof placedPiece> => !('look' in x)

/**
 * A walk-round with every shared piece written out.
 * @throws Refusal `unknown-piece`, with the path of the place; or what is wrong with the whole.
 */
export function writtenOut(t: WalkroundTemplate, pieces: readonly Piece[]): Walkround {
  const zones = t.zones.map((zone, i) => ({
    ...zone,
    items: zone.items.flatMap((x, j): WalkItem[] => {
      if (!isPlaced(x)) return [x]
      const piece = pieces.find((p) => p.id === x.piece)
      if (!piece) {
        throw new Refusal('unknown-piece', `There is no shared piece “${x.piece}”.`, `zones.${i}.items.${j}.piece`)
      }
      return piece.items.flatMap((item, k) => (k > 0 && x.measures?.[item.id] === null ? [] : [placed(x, item, k, piece.id)]))
    }),
  }))
  return parseOrRefuse(walkround, { before: t.before, zones })
}

function placed(x: z.infer<typeof placedPiece>, item: Piece['items'][number], k: number, piece: string): WalkItem {
  const own: Measure | null | undefined = x.measures?.[item.id]
  const { measure: shared, occasions, ...rest } = item
  const m = own === undefined ? shared : own
  const when = x.occasions ?? occasions
  return {
    ...rest,
    id: k === 0 ? x.id : `${x.id}-${item.id}`,
    label: k === 0 ? x.label : `${x.label}: ${item.label.toLowerCase()}`,
    look: x.also && k === 0 ? `${item.look}; ${x.also}` : item.look,
    ...(x.where ? { where: x.where } : {}),
    ...(x.cover && k === 0 ? { cover: x.cover } : {}),
    ...(x.mayBeMissing ? { mayBeMissing: true } : {}),
    ...(x.leastGrade ? { leastGrade: x.leastGrade } : {}),
    ...(m ? { measure: m } : {}),
    ...(when ? { occasions: when } : {}),
    piece,
  }
}
