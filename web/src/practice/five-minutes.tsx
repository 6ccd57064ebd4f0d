import type { PointLine } from '@geolabe/contract'
import { driveRules, mistakes } from '@geolabe/core'
import { Link } from 'react-router'
import { usePracticePoints } from '../api/queries'
import { t } from '../language/t'
import { Loaded, Sheet, Title } from '../look/page'
import { when } from '../look/when'
import { dueNow } from './due'
import { NothingYet } from './on-machine'
import { wayTo } from './ways'
import { gameWords, pointWords } from './words'

/** Where weak points are practised: of judgement and of driving only what is due is drawn there. */
function wayToDue(points: readonly PointLine[]): string {
  const [first] = points
  if (!first) return '/practice'
  const due = [...driveRules, ...mistakes].filter((r) => points.some((p) => p.point === r))
  return `${wayTo(first.machine, first.game)}${due.length > 0 ? `?only=${due.join(',')}` : ''}`
}

/** What is due of one machine and one game is one round. */
function roundsOf(due: readonly PointLine[]): PointLine[][] {
  const rounds = new Map<string, PointLine[]>()
  for (const p of due) {
    const key = `${p.machine} ${p.game}`
    rounds.set(key, [...(rounds.get(key) ?? []), p])
  }
  return [...rounds.values()]
}

/** What went wrong before and is due again, worst first; what comes later beneath. */
export function FiveMinutes() {
  const points = usePracticePoints()
  return (
    <>
      <Title
        below={t`What went wrong before comes again, sooner where it went wrong often. Nobody has to do it.`}
      >{t`Five minutes`}</Title>
      <Loaded query={points}>
        {({ points: all }) => {
          const due = dueNow(all)
          const later = all.filter((p) => !due.includes(p))
          return (
            <div className="grid gap-4 pb-6">
              {due.length === 0 && (
                <NothingYet>{all.length === 0 ? t`Nothing has gone wrong yet.` : t`Nothing is due.`}</NothingYet>
              )}
              <ol className="grid gap-3 md:grid-cols-2">
                {roundsOf(due).map((round, i) => {
                  const [first] = round
                  return (
                    first && (
                      <li key={`${first.machine} ${first.game}`}>
                        <Link
                          to={wayToDue(round)}
                          className={
                            i === 0
                              ? 'block h-full rounded-lg border-2 border-ink bg-accent px-4 py-3 text-on-accent shadow-[0_3px_0_var(--ink)]'
                              : 'block h-full rounded-lg border-2 border-ink bg-sheet px-4 py-3 hover:bg-sunk'
                          }
                        >
                          <strong className="block text-[1.15rem]">
                            {first.machineName}, {gameWords[first.game]}
                          </strong>
                          {round.map((p) => (
                            <span key={p.point} className="block">
                              {pointWords[p.point]}
                            </span>
                          ))}
                        </Link>
                      </li>
                    )
                  )
                })}
              </ol>
              {later.length > 0 && (
                <Sheet title={t`Not due yet`}>
                  <ul className="grid gap-1">
                    {later.map((p) => (
                      <li key={`${p.kind} ${p.game} ${p.point}`} className="flex flex-wrap gap-x-3">
                        <span className="font-semibold">{pointWords[p.point]}</span>
                        <span className="text-quiet">
                          {p.kind}, {when(p.dueAt)}
                        </span>
                      </li>
                    ))}
                  </ul>
                </Sheet>
              )}
            </div>
          )
        }}
      </Loaded>
    </>
  )
}
