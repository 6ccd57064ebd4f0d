import { type Procedure, waitsFor, withoutStep } from '@geolabe/core'
import { told } from '../language/t'
import { Tick } from '../look/tick'

/** A written sequence: a step can be confirmed only after what it rests on, and taking one back takes back what followed. */
export function Steps({
  steps,
  confirmed,
  onChange,
}: {
  steps: Procedure
  confirmed: readonly string[]
  onChange: (confirmed: string[]) => void
}) {
  const done = new Set(confirmed)
  return (
    <ol className="grid gap-2">
      {steps.map((s) => {
        const waits = waitsFor(steps, s.id, done)
        const isDone = done.has(s.id)
        const next = !isDone && waits.length === 0
        return (
          <li key={s.id}>
            <Tick
              checked={isDone}
              disabled={!isDone && waits.length > 0}
              onChange={(v) =>
                onChange(v ? [...confirmed, s.id] : confirmed.filter((id) => withoutStep(steps, s.id, done).has(id)))
              }
              note={
                next || isDone ? (
                  <>
                    {s.detail}
                    {next && s.caution && <span className="block font-semibold text-near">{s.caution}</span>}
                  </>
                ) : null
              }
            >
              {told(s.label)}
            </Tick>
          </li>
        )
      })}
    </ol>
  )
}
