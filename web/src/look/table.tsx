import { type ColumnDef, createColumnHelper, type RowData, tableFeatures, useTable } from '@tanstack/react-table'
import clsx from 'clsx'

/** What our tables do beyond rows and columns: nothing yet. */
const features = tableFeatures({})
type Features = typeof features

export type Columns<Row extends RowData> = ColumnDef<Features, Row, unknown>[]

/** Columns of a table of such rows. */
export const columnsOf = <Row extends RowData>() => createColumnHelper<Features, Row>()

/** A table: its first column heads the rows, figures stand to the right. Columns and rows are kept stable by whoever shows it. */
export function Table<Row extends RowData>({
  label,
  columns,
  rows,
  className,
  padding = 'px-2 py-1.5',
}: {
  label: string
  columns: Columns<Row>
  rows: readonly Row[]
  className?: string
  padding?: string
}) {
  const table = useTable({ features, columns, data: rows as Row[] })
  return (
    <div className="overflow-x-auto">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls sideways has to be reached by keyboard */}
      <table className={clsx('w-full border-collapse text-right', className)} tabIndex={0} aria-label={label}>
        <thead>
          {table.getHeaderGroups().map((g) => (
            <tr key={g.id} className="border-b-2 border-ink">
              {g.headers.map((h, i) => (
                <th key={h.id} scope="col" className={clsx('px-2 py-1.5 align-bottom', i === 0 && 'text-left')}>
                  <table.FlexRender header={h} />
                </th>
              ))}
            </tr>
          ))}
        </thead>
        <tbody>
          {table.getRowModel().rows.map((r) => (
            <tr key={r.id} className="border-b border-line last:border-b-0">
              {r.getAllCells().map((c, i) =>
                i === 0 ? (
                  <th key={c.id} scope="row" className={clsx('text-left font-normal', padding)}>
                    <table.FlexRender cell={c} />
                  </th>
                ) : (
                  <td key={c.id} className={padding}>
                    <table.FlexRender cell={c} />
                  </td>
                ),
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
