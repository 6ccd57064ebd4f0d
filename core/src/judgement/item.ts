import type { Machine } from '../machine/machine'
import { randomFrom } from '../practice/random'
import type { RatingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { shuffled } from './lots'
import { type PartItem, partFaultsOf, partItem } from './part-item'
import { type PartFault, partFaults } from './plates'
import { type StandFault, type StandItem, standFaults, standFaultsOf, standItem } from './stand-item'
import { cellsOf, type Misreading, misreadings, misreadingsOf, type TableItem, tableItem } from './table-item'
import { type WayFault, type WayItem, wayFaults, wayFaultsOf, wayItem } from './way-item'
import { type WindFault, type WindItem, windFaults, windFaultsOf, windItem } from './wind-item'

/** What can be wrong: with a figure read from a table, how a machine stands, how a truck is about to be driven, how wind was reckoned, a part. */
export const mistakes = [...misreadings, ...standFaults, ...wayFaults, ...windFaults, ...partFaults] as const
export type Mistake = Misreading | StandFault | WayFault | WindFault | PartFault
/** What may be said of an item: what is wrong with it, or that nothing is. */
export const opinions = ['nothing', ...mistakes] as const
export type Opinion = (typeof opinions)[number]

/** Somebody has done something and says that it is right: what is wrong with it? */
export type Item = TableItem | StandItem | WayItem | WindItem | PartItem

/** What is judged: a machine with its walk-round, by its tables. */
export interface JudgedOn {
  machine: Machine
  tables: readonly RatingTable[]
}

/** At least so much of what is shown together is in order, and is not. */
const least_share = 0.3

export interface How {
  seed: number
  /** 0: mistakes as bold as can be; 1: near to what is right. */
  level: number
  /** What may be wrong. */
  only: readonly Mistake[]
}

const isMisreading = (m: Mistake): m is Misreading => misreadings.some((x) => x === m)
const isWayFault = (m: Mistake): m is WayFault => wayFaults.some((x) => x === m)
const isPartFault = (m: Mistake): m is PartFault => partFaults.some((x) => x === m)
const isWindFault = (m: Mistake): m is WindFault => windFaults.some((x) => x === m)

/** Which mistakes can be made with a machine and its tables. */
export const mistakesOn = ({ machine, tables }: JudgedOn): Mistake[] => [
  ...misreadingsOf(tables),
  ...standFaultsOf(machine, tables),
  ...wayFaultsOf(machine),
  ...windFaultsOf(machine, tables),
  ...partFaultsOf(machine),
]

/**
 * Items of a machine and its tables, the same for a seed on every device; of half of them nothing is wrong.
 *
 * @throws Refusal `no-items` where they offer nothing that can be told apart
 * @example itemsFrom({ machine: tern, tables: [ternTable] }, { seed: 1, level: 0, only: mistakes }, 10)[0]?.wrong // 'nothing', or what is wrong
 */
export function itemsFrom({ machine, tables }: JudgedOn, how: How, count: number): Item[] {
  const random = randomFrom(how.seed, 'judgement')
  const cells = cellsOf(tables)
  const itemOf = (wrong: Mistake, of: { level: number; right: boolean }): Item | null => {
    if (isMisreading(wrong)) return tableItem(random, cells, { wrong, ...of })
    if (isWayFault(wrong)) return wayItem(random, machine, { wrong, ...of })
    if (isPartFault(wrong)) return partItem(random, machine, { wrong, ...of })
    if (isWindFault(wrong)) return windItem(random, machine, tables, { wrong, ...of })
    return standItem(random, machine, tables, { wrong, ...of })
  }
  const one = (right: boolean): Item => {
    for (const wrong of shuffled(random, how.only)) {
      const { level } = how
      const item = itemOf(wrong, { level, right })
      if (item) return item
    }
    throw new Refusal('no-items', 'It offers nothing to practise judgement on.', 'machine')
  }
  // Whether anything is wrong is drawn first: what is harder to find is looked for longer. Of each there is enough to tell a guess by.
  const draw = () => Array.from({ length: count }, () => random() < 0.5)
  const few = Math.floor(least_share * count)
  let right = draw()
  while (right.filter(Boolean).length < few || right.filter((x) => !x).length < few) right = draw()
  return right.map(one)
}
