import {
  type Item,
  isAtFoot,
  isSeenFault,
  isTruck,
  type Judged,
  type JudgedOn,
  liftsOnOutriggers,
  type Mistake,
  misreadings,
  type Opinion,
  type PartItem,
  partFaults,
  type RatingTable,
  type StandItem,
  standFaults,
  type TableItem,
  type TruckMachine,
  type WayItem,
  type WindItem,
  wayFaults,
  windFaults,
} from '@geolabe/core'
import type { ReactNode } from 'react'
import { t } from '../language/t'
import { Claim, ItemSheets, Told } from './item-sheets'
import { PartClaim, PartPicture, PartTold, placeWords } from './part-sheets'
import { StandClaim, StandPicture, StandTold } from './stand-sheets'
import { WayClaim, WayPicture, WayTold } from './way-sheets'
import type { Choice } from './which-place'
import { WindClaim, WindPicture, WindTold } from './wind-sheets'

/** How one item is shown. */
export interface Shown {
  title: string
  head: ReactNode
  drawing: ReactNode
  told: ReactNode
  /** What may be said of it. */
  of: readonly Mistake[]
  /** The places of which one is asked for, and when; left out: none ever. */
  where?: { of: readonly Choice[]; asked: (wrong: Opinion) => boolean }
}

interface State {
  answer: Judged | undefined
  /** What was wrong may be seen, once it is answered. */
  told: boolean
  /** The outrigger or place that was chosen. */
  place: string | null
  /** Chooses one; left out: nothing is chosen any more. */
  onPlace?: (id: string) => void
}

const tableShown = (item: TableItem, table: RatingTable, { answer, told }: State): Omit<Shown, 'title'> => ({
  head: <Claim item={item} table={table} />,
  drawing: <ItemSheets item={item} table={table} told={told && answer !== undefined} />,
  told: answer && <Told item={item} table={table} answer={answer} />,
  of: misreadings,
})

function standShown(item: StandItem, { machine }: JudgedOn, table: RatingTable, of: State): Omit<Shown, 'title'> | null {
  if (!liftsOnOutriggers(machine)) return null
  const { answer, told, place, onPlace } = of
  const sheet = table.configurations.find((c) => c.id === item.configuration)?.label ?? ''
  const at = told && answer ? (item.where[0] ?? null) : place
  return {
    head: <StandClaim item={item} machine={machine} sheet={sheet} />,
    drawing: <StandPicture item={item} machine={machine} at={at} onTouch={answer ? undefined : onPlace} />,
    told: answer && <StandTold item={item} machine={machine} answer={answer} />,
    of: standFaults,
    where: { of: machine.outriggers, asked: isAtFoot },
  }
}

const wayShown = (item: WayItem, machine: TruckMachine, { answer }: State): Omit<Shown, 'title'> => ({
  head: <WayClaim item={item} machine={machine} />,
  drawing: <WayPicture item={item} machine={machine} />,
  told: answer && <WayTold item={item} answer={answer} />,
  of: wayFaults,
})

const windShown = (item: WindItem, { answer }: State): Omit<Shown, 'title'> => ({
  head: <WindClaim item={item} />,
  drawing: <WindPicture item={item} />,
  told: answer && <WindTold item={item} answer={answer} />,
  of: windFaults,
})

const partShown = (item: PartItem, { answer, told, place, onPlace }: State): Omit<Shown, 'title'> => ({
  head: <PartClaim item={item} />,
  drawing: (
    <PartPicture
      item={item}
      at={told && answer ? (item.where[0] ?? null) : place}
      {...(answer || !onPlace ? {} : { onTouch: onPlace })}
    />
  ),
  told: answer && <PartTold item={item} answer={answer} />,
  // What cannot be on such a part is not asked about.
  of: partFaults.filter((f) => (isSeenFault(f) ? f in item.plate.seen : item.read !== null)),
  where: { of: item.plate.places.map((id) => ({ id, label: placeWords[id] })), asked: (wrong) => wrong !== 'nothing' },
})

/** An item as it is judged, or told; null: its table or its outriggers are gone. */
export function shownOf(item: Item, on: JudgedOn, state: State): Shown | null {
  if (item.of === 'way')
    return isTruck(on.machine) ? { title: t`The way of ${on.machine.name}`, ...wayShown(item, on.machine, state) } : null
  if (item.of === 'wind') return { title: t`Wind at ${on.machine.name}`, ...windShown(item, state) }
  if (item.of === 'part') return { title: t`Walk round ${on.machine.name}`, ...partShown(item, state) }
  const table = on.tables.find((x) => x.id === item.table)
  const shown = table && (item.of === 'table' ? tableShown(item, table, state) : standShown(item, on, table, state))
  const { name } = on.machine
  return shown ? { title: item.of === 'table' ? t`Tables of ${name}` : t`Stand of ${name}`, ...shown } : null
}
