import { useState } from 'react'
import { Link } from 'react-router'
import { useTables } from '../api/queries'
import { t } from '../language/t'
import { TextField } from '../look/field'
import { Loaded, Title } from '../look/page'

/** Rating tables and plates of every machine: whose, by what it goes, which revision counts, who checked it. */
export function Tables() {
  const tables = useTables()
  const [asked, setAsked] = useState('')
  return (
    <>
      <Title
        below={t`Ratings as the makers gave them. A new revision counts once somebody else has checked it.`}
      >{t`Tables`}</Title>
      <div className="mb-4 max-w-md">
        <TextField label={t`Find a table by machine or kind`} value={asked} onChange={setAsked} />
      </div>
      <Loaded query={tables}>
        {(list) => {
          const shown = list.tables.filter((table) =>
            `${table.machineName} ${table.kind} ${table.title}`.toLowerCase().includes(asked.trim().toLowerCase()),
          )
          if (shown.length === 0) return <p className="text-lg">{t`No table here is called that.`}</p>
          return (
            <ul className="grid gap-2 pb-8 sm:grid-cols-2">
              {shown.map((table) => (
                <li key={table.id}>
                  <Link
                    to={`/tables/${table.id}`}
                    className="block h-full rounded-lg border-2 border-edge bg-sheet px-3.5 py-2.5 hover:border-ink"
                  >
                    <span className="flex items-baseline justify-between gap-3">
                      <span className="text-[1.15rem] font-bold">{table.machineName}</span>
                      <span className="figure text-[0.92rem] text-quiet">{t`revision ${table.revision}`}</span>
                    </span>
                    <span className="block text-quiet">{table.kind}</span>
                    <span className="block text-[0.95rem]">{t`${table.axes.row.label} and ${table.axes.column.label.toLowerCase()}`}</span>
                    {table.inUse !== table.revision ? (
                      <span className="block font-semibold text-near">{t`Revision ${table.inUse} counts until ${table.revision} is checked`}</span>
                    ) : table.checkedBy ? (
                      <span className="block text-[0.92rem] text-quiet">{t`Checked by ${table.checkedBy}`}</span>
                    ) : (
                      <span className="block font-semibold text-unproven">{t`Nobody has checked it`}</span>
                    )}
                  </Link>
                </li>
              ))}
            </ul>
          )
        }}
      </Loaded>
    </>
  )
}
