import { type Judged, type RatingTable, ratingAt, type TableItem, unitOfAxis } from '@geolabe/core'
import { useState } from 'react'
import { t } from '../language/t'
import { SelectField } from '../look/field'
import { CellGrid, headOf, unitWord } from '../tables/cell-grid'
import { usePreferences, useSay } from '../units/units'
import { Outcome } from './outcome'
import { aboveWords, opinionWords } from './words'

const sheetOf = (item: TableItem, table: RatingTable) => table.configurations.find((c) => c.id === item.configuration)

/** The machine as it stands, and what somebody says it may lift there. */
export function Claim({ item, table }: { item: TableItem; table: RatingTable }) {
  const say = useSay()
  const { units } = usePreferences()
  const { row, column } = table.axes
  const place = (axis: typeof row, v: number | string) =>
    `${headOf(units, v, unitOfAxis(axis))}${unitWord(units, unitOfAxis(axis))}`
  const columnName = () => {
    const c = sheetOf(item, table)
    return c?.columnNames?.[c.columns.indexOf(item.column)]
  }
  return (
    <div>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5">
        <dt className="text-quiet">{t`Stands`}</dt>
        <dd className="font-semibold">{sheetOf(item, table)?.label}</dd>
        <dt className="text-quiet">{row.label}</dt>
        <dd className="font-semibold">{place(row, item.row)}</dd>
        <dt className="text-quiet">{column.label}</dt>
        <dd className="font-semibold">{columnName() ?? place(column, item.column)}</dd>
        {item.taken.length > 0 && (
          <>
            <dt className="text-quiet">{t`Above the load`}</dt>
            <dd className="font-semibold">
              {item.taken.map((x) => `${aboveWords[x.what]} ${say('mass', x.mass_kg)}`).join(', ')}
            </dd>
          </>
        )}
      </dl>
      <p className="mt-2">
        {t`Somebody read the table and says: a load may weigh`}{' '}
        <strong className="block text-[2rem] leading-tight tabular-nums">{say('mass', item.said_kg)}</strong>
      </p>
    </div>
  )
}

/** All sheets of the table, to be looked through; once told, the cells that count are marked. */
export function ItemSheets({ item, table, told }: { item: TableItem; table: RatingTable; told: boolean }) {
  const [shown, setShown] = useState(table.configurations[0]?.id ?? '')
  const right = sheetOf(item, table)
  const grid = told ? right : table.configurations.find((c) => c.id === shown)
  if (!grid || !right) return null
  const cells = told ? ratingAt(table.axes, right, item.row, item.column, 'worse-row').cells : []
  return (
    <div className="flex max-h-full min-h-0 flex-col gap-2 rounded-xl border border-line bg-sheet p-3">
      {table.configurations.length > 1 && !told ? (
        <SelectField
          label={t`Sheet`}
          value={shown}
          options={table.configurations.map((c) => ({ value: c.id, label: c.label }))}
          onChange={setShown}
        />
      ) : (
        <h2 className="text-[1.05rem]">{grid.label}</h2>
      )}
      <div className="min-h-0 overflow-y-auto">
        <CellGrid grid={grid} axes={table.axes} odd={[]} changed={new Set(cells.map((c) => `${c.row}|${c.column}`))} />
      </div>
    </div>
  )
}

/** Whether an answer was right, and what the table gives. */
export function Told({ item, table, answer }: { item: TableItem; table: RatingTable; answer: Judged }) {
  const say = useSay()
  const c = sheetOf(item, table)
  if (!c) return null
  const { gross_kg, cells } = ratingAt(table.axes, c, item.row, item.column, 'worse-row')
  const taken_kg = item.taken.reduce((sum, x) => sum + x.mass_kg, 0)
  const gross = typeof gross_kg === 'number' ? say('mass', gross_kg) : ''
  return (
    <Outcome item={item} answer={answer}>
      {item.wrong !== 'nothing' && (
        <p>
          <strong>{t`${opinionWords[item.wrong]}.`}</strong>{' '}
          {t`It may weigh ${say('mass', item.right_kg)}, not ${say('mass', item.said_kg)}.`}
        </p>
      )}
      <p>
        {cells.length > 1 ? t`The least of the marked cells, ${gross}` : t`The marked cell, ${gross}`}
        {taken_kg > 0 && t`, less ${say('mass', taken_kg)} above the load`}.
      </p>
    </Outcome>
  )
}
