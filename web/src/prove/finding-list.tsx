import { type Assessment, findingWords, notCheckedWords } from '@geolabe/core'
import { UseBar, VerdictWord } from '../look/verdict'
import { useSay } from '../units/units'

/** The table as a finger would read it: both ends, the worst between, and the cells it came from. */
function Reading({ assessment: a }: { assessment: Assessment }) {
  const say = useSay()
  if (!a.configuration || !a.ratedAt) return null
  const kg = (v: number | null) => (v === null ? 'not rated' : say('mass', v))
  const ends: [string, string][] = [
    ['At P, pick-up', kg(a.ratedAt.pick_kg)],
    ['At S, set-down', kg(a.ratedAt.set_kg)],
    ['Worst on the path', kg(a.rated_kg)],
  ]
  return (
    <section aria-labelledby="reading" className="mt-6 rounded-xl border border-line bg-sheet p-4">
      <h2 id="reading">Read from the table</h2>
      <p className="text-quiet">
        {a.configuration.table}, revision {a.configuration.revision}:{' '}
        <strong className="text-ink">{a.configuration.label}</strong>. Set the machine’s own computer to this.
      </p>
      <dl className="mt-2 grid grid-cols-3 gap-4 max-sm:grid-cols-1">
        {ends.map(([label, value]) => (
          <div key={label}>
            <dt className="text-[0.9rem] text-quiet">{label}</dt>
            <dd className="figure text-xl font-bold">{value}</dd>
          </div>
        ))}
      </dl>
      {a.readFrom.length > 0 && (
        <p className="mt-2 text-[0.92rem] text-quiet">
          Cells read:{' '}
          {a.readFrom
            .map((c) => `boom ${say('length', Number(c.column))}, radius ${say('length', Number(c.row))}: ${kg(c.rating_kg)}`)
            .join(' · ')}
        </p>
      )}
    </section>
  )
}

/** Every finding, and next to it what nobody checked. */
export function FindingList({ assessment }: { assessment: Assessment }) {
  const say = useSay()
  return (
    <>
      <Reading assessment={assessment} />
      <div className="mt-6 grid items-start gap-5 lg:grid-cols-[1.7fr_1fr]">
        <section aria-labelledby="checked">
          <h2 id="checked" className="mb-2">
            What was checked
          </h2>
          <ul className="overflow-hidden rounded-xl border border-line bg-sheet">
            {assessment.findings.map((f) => {
              const w = findingWords(f, say)
              return (
                <li
                  key={f.id}
                  className="grid gap-x-4 gap-y-1 border-t border-line p-3 first:border-t-0 sm:grid-cols-[10rem_1fr_8.5rem]"
                >
                  <h3 className="first-letter:uppercase">{w.title}</h3>
                  <div>
                    <p>{w.what}</p>
                    <p className="text-[0.9rem] text-quiet">{w.rule}</p>
                  </div>
                  <div className="grid content-start gap-1.5">
                    <VerdictWord verdict={f.verdict} />
                    {f.utilisation !== null && (
                      <>
                        <UseBar verdict={f.verdict} share={f.utilisation} />
                        <span className="figure text-[0.9rem]">
                          {f.utilisation > 9.99 ? 'many times over' : `${say('share', f.utilisation)} used`}
                        </span>
                      </>
                    )}
                  </div>
                </li>
              )
            })}
          </ul>
        </section>
        <section aria-labelledby="unchecked">
          <h2 id="unchecked" className="mb-2">
            What was not checked
          </h2>
          <ul className="overflow-hidden rounded-xl border border-dashed border-edge bg-sheet">
            {assessment.notChecked.map((n) => (
              <li key={n} className="border-t border-line px-3 py-2 first:border-t-0">
                {notCheckedWords[n]}
              </li>
            ))}
          </ul>
        </section>
      </div>
    </>
  )
}
