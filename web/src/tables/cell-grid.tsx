import { type OddCell, type RatingConfiguration, type TableAxes, unitOfAxis } from '@geolabe/core'
import clsx from 'clsx'
import { createContext, useContext, useMemo } from 'react'
import { t } from '../language/t'
import { type Columns, columnsOf, Table } from '../look/table'
import { editIn, figureOf, parseIn, type System, typedFault, unitOf, usePreferences } from '../units/units'

type Row = RatingConfiguration['rows'][number]
const helper = columnsOf<Row>()

interface Marks {
  odd: readonly OddCell[]
  changed: ReadonlySet<string>
  /** Omitted: read only. */
  onChange?: ((row: number, column: number, kg: number | null) => void) | undefined
}
/** What is said of cells changes while one is typed; the columns stay, and with them what is being typed. */
const Marked = createContext<Marks>({ odd: [], changed: new Set() })

/** A figure of an axis in the person's units. */
export function headOf(units: System, v: number | string, unit: string): string {
  if (typeof v === 'string' || unit !== 'm') return String(v)
  return figureOf(units, 'length', v, units === 'metric' ? (Number.isInteger(v * 10) ? 1 : 2) : 1)
}
export const unitWord = (units: System, unit: string) =>
  unit === 'm' ? ` ${unitOf(units, 'length').label}` : unit === '°' ? ' °' : ''

/** The ratings themselves, as a finger reads them; cells to ask about and cells just changed are marked. */
export function CellGrid({ grid, axes: { row, column }, ...marks }: Marks & { grid: RatingConfiguration; axes: TableAxes }) {
  const { units } = usePreferences()
  const { columns: across, columnNames } = grid
  const columns = useMemo<Columns<Row>>(() => {
    const [rowUnit, columnUnit] = [unitOfAxis(row), unitOfAxis(column)]
    return [
      helper.display({
        id: 'row',
        header: () => (
          <span className="font-sans text-[0.86rem] font-semibold text-quiet">
            {row.label}
            {unitWord(units, rowUnit)} ↓ · {column.label}
            {unitWord(units, columnUnit)} →
          </span>
        ),
        cell: ({ row: r }) => <strong>{headOf(units, r.original.at, rowUnit)}</strong>,
      }),
      ...across.map((c, j) =>
        helper.display({
          id: `${c}`,
          header: () => (
            <span className="whitespace-nowrap">
              {columnNames?.[j] && (
                <span className="block font-sans text-[0.82rem] font-semibold text-quiet">{columnNames[j]}</span>
              )}
              {headOf(units, c, columnUnit)}
            </span>
          ),
          cell: ({ row: r }) => (
            <Cell
              at={[r.index, j]}
              id={`${r.original.at}|${c}`}
              kg={r.original.ratings_kg[j] ?? null}
              label={`${row.label} ${headOf(units, r.original.at, rowUnit)}, ${column.label} ${headOf(units, c, columnUnit)}`}
            />
          ),
        }),
      ),
    ]
  }, [across, columnNames, row, column, units])
  return (
    <Marked value={marks}>
      <Table
        label={t`Ratings in ${unitOf(units, 'mass').label}, ${grid.label}`}
        columns={columns}
        rows={grid.rows}
        className="figure"
        padding="px-1 py-0.5"
      />
    </Marked>
  )
}

function Cell({ at: [i, j], id, kg, label }: { at: readonly [number, number]; id: string; kg: number | null; label: string }) {
  const { odd, changed, onChange } = useContext(Marked)
  const { units } = usePreferences()
  const asked = odd.find((o) => o.row === i && o.column === j)
  return (
    <span
      title={asked?.message}
      className={clsx(
        'block px-1 py-0.5',
        asked && 'outline-3 -outline-offset-2 outline-outside',
        changed.has(id) && 'bg-accent/35',
      )}
    >
      {onChange ? (
        <CellInput label={`${label}, ${unitOf(units, 'mass').label}`} kg={kg} onChange={(v) => onChange(i, j, v)} />
      ) : kg === null ? (
        <span className="text-quiet">–</span>
      ) : (
        figureOf(units, 'mass', kg)
      )}
    </span>
  )
}

/** One cell while a table is revised: taken when it is left; what cannot be read stays and is said. */
function CellInput({ label, kg, onChange }: { label: string; kg: number | null; onChange: (kg: number | null) => void }) {
  const { units } = usePreferences()
  return (
    <input
      aria-label={label}
      inputMode="decimal"
      className="field min-h-12 w-24 px-2 text-right"
      defaultValue={kg === null ? '' : editIn(units, 'mass', kg)}
      onBlur={(e) => {
        const text = e.target.value.trim()
        const v = text === '' || typedFault(text) ? null : parseIn(units, 'mass', text)
        e.target.setCustomValidity(typedFault(text) ?? '')
        if (typedFault(text)) e.target.reportValidity()
        else if (text !== '' && (v === null || v < 0)) e.target.value = kg === null ? '' : editIn(units, 'mass', kg)
        else if (v !== kg) onChange(v)
      }}
    />
  )
}
