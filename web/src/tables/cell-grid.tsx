import { type OddCell, type RatingConfiguration, type TableAxes, unitOfAxis } from '@geolabe/core'
import clsx from 'clsx'
import { editIn, figureOf, parseIn, typedFault, unitOf, usePreferences } from '../units/units'

/** The ratings themselves, as a finger reads them; cells to ask about and cells just changed are marked. */
export function CellGrid({
  grid,
  axes: { row, column },
  odd,
  changed,
  onChange,
}: {
  grid: RatingConfiguration
  axes: TableAxes
  odd: readonly OddCell[]
  changed: ReadonlySet<string>
  /** Omitted: read only. */
  onChange?: ((row: number, column: number, kg: number | null) => void) | undefined
}) {
  const { units } = usePreferences()
  const [rowUnit, columnUnit] = [unitOfAxis(row), unitOfAxis(column)]
  const mass = unitOf(units, 'mass').label
  const head = (v: number | string, unit: string) =>
    typeof v === 'number'
      ? unit === 'm'
        ? `${figureOf(units, 'length', v, units === 'metric' ? (Number.isInteger(v * 10) ? 1 : 2) : 1)}`
        : String(v)
      : v
  const unitWord = (unit: string) => (unit === 'm' ? ` ${unitOf(units, 'length').label}` : unit === '°' ? ' °' : '')
  return (
    <div className="overflow-x-auto">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls sideways has to be reached by keyboard */}
      <table className="figure w-full border-collapse text-right" tabIndex={0} aria-label={`Ratings in ${mass}, ${grid.label}`}>
        <thead>
          <tr className="border-b-2 border-ink">
            <th scope="col" className="px-2 py-2 text-left font-sans text-[0.86rem] font-semibold text-quiet">
              {row.label}
              {unitWord(rowUnit)} ↓ · {column.label}
              {unitWord(columnUnit)} →
            </th>
            {grid.columns.map((c, j) => (
              <th key={`${c}`} scope="col" className="px-2 py-2 whitespace-nowrap">
                {grid.columnNames?.[j] && (
                  <span className="block font-sans text-[0.82rem] font-semibold text-quiet">{grid.columnNames[j]}</span>
                )}
                {head(c, columnUnit)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {grid.rows.map(({ at: r, ratings_kg }, i) => (
            <tr key={`${r}`} className="border-b border-line">
              <th scope="row" className="px-2 py-1.5 text-left">
                {head(r, rowUnit)}
              </th>
              {grid.columns.map((c, j) => {
                const kg = ratings_kg[j] ?? null
                const asked = odd.find((o) => o.row === i && o.column === j)
                const mark = clsx(
                  asked && 'outline-3 -outline-offset-2 outline-outside',
                  changed.has(`${r}|${c}`) && 'bg-accent/35',
                )
                return (
                  <td key={`${c}`} className={clsx('px-1 py-0.5', mark)} title={asked?.message}>
                    {onChange ? (
                      <input
                        aria-label={`${row.label} ${head(r, rowUnit)}, ${column.label} ${head(c, columnUnit)}, ${mass}`}
                        inputMode="decimal"
                        className="field min-h-12 w-24 px-2 text-right"
                        defaultValue={kg === null ? '' : editIn(units, 'mass', kg)}
                        onBlur={(e) => {
                          const text = e.target.value.trim()
                          const v = text === '' || typedFault(text) ? null : parseIn(units, 'mass', text)
                          e.target.setCustomValidity(typedFault(text) ?? '')
                          if (typedFault(text)) e.target.reportValidity()
                          else if (text !== '' && (v === null || v < 0))
                            e.target.value = kg === null ? '' : editIn(units, 'mass', kg)
                          else if (v !== kg) onChange(i, j, v)
                        }}
                      />
                    ) : (
                      <span className="px-1">
                        {kg === null ? <span className="text-quiet">–</span> : figureOf(units, 'mass', kg)}
                      </span>
                    )}
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
