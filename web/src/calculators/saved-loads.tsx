import { useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Labelled } from '../look/field'
import { isObj, type Obj } from './schema'

const place = 'geolabe.loads'

function read(): Record<string, Obj> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place) ?? '{}')
    return isObj(kept) ? (Object.fromEntries(Object.entries(kept).filter(([, v]) => isObj(v))) as Record<string, Obj>) : {}
  } catch {
    return {}
  }
}

/** Loads built on this device, kept under a name and taken up again. */
export function SavedLoads({ input, onTake }: { input: Obj; onTake: (v: Obj) => void }) {
  const [loads, setLoads] = useState(read)
  const [name, setName] = useState('')
  const keep = (next: Record<string, Obj>) => {
    setLoads(next)
    localStorage.setItem(place, JSON.stringify(next))
  }
  const names = Object.keys(loads).sort()
  return (
    <div className="grid grid-cols-[1fr_auto] items-end gap-2 rounded-lg border border-line p-2.5">
      <Labelled label={t`Name of this load`}>
        {({ id }) => (
          <input
            id={id}
            className="field"
            list={`${id}-known`}
            autoComplete="off"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        )}
      </Labelled>
      <Button disabled={name.trim() === ''} onClick={() => keep({ ...loads, [name.trim()]: input })}>{t`Keep`}</Button>
      {names.length > 0 && (
        <ul className="col-span-full flex flex-wrap gap-2" aria-label={t`Loads kept on this device`}>
          {names.map((n) => (
            <li key={n} className="flex">
              <Button
                onClick={() => {
                  setName(n)
                  onTake(loads[n] as Obj)
                }}
              >
                {n}
              </Button>
              <Button
                look="quiet"
                aria-label={t`Forget ${n}`}
                onClick={() => keep(Object.fromEntries(Object.entries(loads).filter(([k]) => k !== n)))}
              >{t`forget`}</Button>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
