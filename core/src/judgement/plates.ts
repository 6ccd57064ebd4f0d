import type { WearKind } from '../wear/limits'

/** What can be wrong with a part that is looked at and measured: its reading near its limit, or at it; or what is seen on it. */
export const wornFaults = ['part-near', 'part-worn'] as const
export const seenFaults = ['part-cracked', 'part-cut', 'part-missing', 'part-bent'] as const
export const partFaults = [...wornFaults, ...seenFaults] as const
export type SeenFault = (typeof seenFaults)[number]
export type PartFault = (typeof partFaults)[number]

/** What is seen on a part, whatever was measured of it. */
export const isSeenFault = (f: PartFault): f is SeenFault => seenFaults.some((x) => x === f)

/** Places of a part, each drawn in its own. */
export type PartPlace =
  | 'heel'
  | 'blade'
  | 'tip'
  | 'lock'
  | 'left-chain'
  | 'right-chain'
  | 'left-anchor'
  | 'right-anchor'
  | 'tread'
  | 'sidewall'
  | 'nuts'
  | 'valve'
  | 'throat'
  | 'seat'
  | 'latch'
  | 'swivel'
  | 'sheave'
  | 'middle'
  | 'end'
  | 'beam'
  | 'pin'
  | 'jack'
  | 'keeper'
  | 'lug'
  | 'hoist-end'

/** A part as it is drawn to be judged: its places, what may be seen where, and where what is measured. */
export interface Plate {
  drawn: 'fork' | 'mast-chain' | 'load-chain' | 'wheel' | 'hook' | 'rope' | 'leg' | 'pins'
  places: readonly PartPlace[]
  seen: Partial<Record<SeenFault, readonly PartPlace[]>>
  measured: Partial<Record<WearKind, readonly PartPlace[]>>
}

/** By the shared piece of the walk-round that an item came from. */
const plates: Readonly<Record<string, Plate>> = {
  fork: {
    drawn: 'fork',
    places: ['lock', 'heel', 'blade', 'tip'],
    seen: { 'part-cracked': ['heel', 'blade'], 'part-missing': ['lock'], 'part-bent': ['tip'] },
    measured: { 'fork-heel': ['heel'], 'fork-tips': ['tip'] },
  },
  'mast-chain': {
    drawn: 'mast-chain',
    places: ['left-chain', 'right-chain', 'left-anchor', 'right-anchor'],
    seen: {
      'part-cracked': ['left-chain', 'right-chain'],
      'part-missing': ['left-anchor', 'right-anchor'],
      'part-bent': ['left-chain', 'right-chain'],
    },
    measured: { 'mast-chain': ['left-chain', 'right-chain'] },
  },
  'solid-tyre': {
    drawn: 'wheel',
    places: ['tread', 'sidewall', 'nuts'],
    seen: { 'part-cut': ['tread', 'sidewall'], 'part-missing': ['nuts'] },
    measured: { 'tyre-tread': ['tread'] },
  },
  'air-tyre': {
    drawn: 'wheel',
    places: ['tread', 'sidewall', 'nuts', 'valve'],
    seen: { 'part-cut': ['tread', 'sidewall'], 'part-missing': ['nuts'], 'part-bent': ['sidewall'] },
    measured: { 'tyre-tread': ['tread'], 'tyre-pressure': ['valve'] },
  },
  'hook-block': {
    drawn: 'hook',
    places: ['swivel', 'latch', 'throat', 'seat'],
    seen: { 'part-cracked': ['seat', 'swivel'], 'part-missing': ['latch'] },
    measured: { 'hook-throat': ['throat'], 'hook-seat': ['seat'] },
  },
  'wire-rope': {
    drawn: 'rope',
    places: ['sheave', 'middle', 'end'],
    seen: { 'part-cut': ['sheave', 'middle'], 'part-bent': ['sheave', 'middle'], 'part-missing': ['end'] },
    measured: {
      'rope-rotation-resistant': ['middle'],
      'rope-steel-core': ['middle'],
      'rope-fibre-core': ['middle'],
    },
  },
  'load-chain': {
    drawn: 'load-chain',
    places: ['hoist-end', 'middle', 'end'],
    seen: { 'part-bent': ['hoist-end', 'middle'], 'part-cracked': ['hoist-end', 'middle'], 'part-missing': ['end'] },
    measured: { 'hoist-chain': ['middle'] },
  },
  pins: {
    drawn: 'pins',
    places: ['pin', 'keeper', 'lug'],
    seen: { 'part-missing': ['keeper'], 'part-cracked': ['lug'] },
    measured: {},
  },
  leg: {
    drawn: 'leg',
    places: ['beam', 'pin', 'jack'],
    seen: { 'part-cracked': ['beam', 'jack'], 'part-missing': ['pin'] },
    measured: {},
  },
}

/** How a piece of a walk-round is drawn to be judged; null: it is not. */
export const plateOf = (piece: string | undefined): Plate | null => (piece === undefined ? null : (plates[piece] ?? null))
