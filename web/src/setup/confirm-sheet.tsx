import type { Evidence, SetupPlan } from '@geolabe/core'
import { t } from '../language/t'
import { Tick } from '../look/tick'
import { clock } from '../look/when'

/** What no figure shows: each looked at and confirmed with one touch, by whom and when. */
export function ConfirmSheet({
  asked,
  confirmed,
  by,
  onChange,
}: {
  asked: readonly Evidence[]
  confirmed: SetupPlan['confirmed']
  by: string
  onChange: (confirmed: SetupPlan['confirmed']) => void
}) {
  return (
    <ul className="grid gap-2">
      {asked.map((e) => {
        const own = confirmed.find((c) => c.id === e.id)
        const others = confirmed.filter((c) => c.id !== e.id)
        return (
          <li key={e.id}>
            <Tick
              checked={own !== undefined}
              onChange={(yes) => onChange(yes ? [...others, { id: e.id, by, at: new Date().toISOString() }] : others)}
              note={own ? t`Confirmed at ${clock(own.at)}` : <span className="font-semibold text-near">{e.caution}</span>}
            >
              {e.label}
            </Tick>
          </li>
        )
      })}
    </ul>
  )
}
