import type { Evidence, SetupPlan } from '@geolabe/core'
import { plural, t } from '../language/t'
import { Tick } from '../look/tick'
import { clock } from '../look/when'

interface Props {
  asked: readonly Evidence[]
  confirmed: SetupPlan['confirmed']
  /** Done in order, or walked round: said there, not here. */
  vouched: readonly string[]
  by: string
  onChange: (confirmed: SetupPlan['confirmed']) => void
}

/** What no figure shows: each looked at and confirmed with one touch, by whom and when; below it what the order or the walk-round has seen to already. */
export function ConfirmSheet({ asked, confirmed, vouched, by, onChange }: Props) {
  const done = asked.filter((e) => vouched.includes(e.id))
  const at = (e: Evidence) => confirmed.find((c) => c.id === e.id)?.at
  return (
    <div className="grid gap-2">
      <ul className="grid gap-2">
        {asked
          .filter((e) => !vouched.includes(e.id))
          .map((e) => {
            const own = at(e)
            const others = confirmed.filter((c) => c.id !== e.id && !vouched.includes(c.id))
            return (
              <li key={e.id}>
                <Tick
                  checked={own !== undefined}
                  onChange={(yes) => onChange(yes ? [...others, { id: e.id, by, at: new Date().toISOString() }] : others)}
                  note={own ? t`Confirmed at ${clock(own)}` : <span className="font-semibold text-near">{e.caution}</span>}
                >
                  {e.label}
                </Tick>
              </li>
            )
          })}
      </ul>
      {done.length > 0 && (
        <details>
          <summary className="min-h-10 cursor-pointer py-1.5 text-quiet">
            {plural(done.length, { one: '# seen to already', other: '# seen to already' })}
          </summary>
          <ul className="grid gap-1">
            {done.map((e) => (
              <li key={e.id} className="flex justify-between gap-3 border-b border-line py-1">
                <span>{e.label}</span>
                <span className="whitespace-nowrap text-quiet">{clock(at(e) ?? '')}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  )
}
