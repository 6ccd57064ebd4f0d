import { axesTitle } from '@geolabe/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { useTables } from '../api/queries'
import { TextField } from '../look/field'
import { Loaded, Title } from '../look/page'

/** Rating tables and plates of every machine: whose, by what it goes, which revision counts, who checked it. */
export function Tables() {
  const tables = useTables()
  const [asked, setAsked] = useState('')
  return (
    <>
      <Title below="Ratings as the makers gave them. A new revision counts once somebody else has checked it.">Tables</Title>
      <div className="mb-4 max-w-md">
        <TextField label="Find a table by machine or kind" value={asked} onChange={setAsked} />
      </div>
      <Loaded query={tables}>
        {(list) => {
          const shown = list.tables.filter((t) =>
            `${t.machineName} ${t.kind} ${t.title}`.toLowerCase().includes(asked.trim().toLowerCase()),
          )
          if (shown.length === 0) return <p className="text-lg">No table here is called that.</p>
          return (
            <ul className="grid gap-2 pb-8 sm:grid-cols-2">
              {shown.map((t) => (
                <li key={t.id}>
                  <Link
                    to={`/tables/${t.id}`}
                    className="block h-full rounded-lg border-2 border-edge bg-sheet px-3.5 py-2.5 hover:border-ink"
                  >
                    <span className="flex items-baseline justify-between gap-3">
                      <span className="text-[1.15rem] font-bold">{t.machineName}</span>
                      <span className="figure text-[0.92rem] text-quiet">revision {t.revision}</span>
                    </span>
                    <span className="block text-quiet">{t.kind}</span>
                    <span className="block text-[0.95rem]">{axesTitle(t.axes)}</span>
                    {t.inUse !== t.revision ? (
                      <span className="block font-semibold text-near">
                        Revision {t.inUse} counts until {t.revision} is checked
                      </span>
                    ) : t.checkedBy ? (
                      <span className="block text-[0.92rem] text-quiet">Checked by {t.checkedBy}</span>
                    ) : (
                      <span className="block font-semibold text-unproven">Nobody has checked it</span>
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
