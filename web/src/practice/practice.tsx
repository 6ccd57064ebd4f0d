import { type Game, gamesIn, type PracticeGames, type PracticeRecord, type YardMachine } from '@geolabe/contract'
import type { LoadRun, Machine } from '@geolabe/core'
import { courseFor, rigOf } from '@geolabe/core'
import clsx from 'clsx'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { usePractice, usePracticeGames, usePracticePoints, useYard } from '../api/queries'
import { t } from '../language/t'
import { Loaded, Sheet, Title } from '../look/page'
import { when } from '../look/when'
import { MachineDrawing } from '../yard/machine-drawing'
import { After } from './after'
import { dueNow, dueWords } from './due'
import { ExamsOffer } from './exams-offer'
import { lastOf } from './level'
import { NotOffered, OnMachine } from './on-machine'
import { Play } from './play'
import { orRefused, useRounds } from './use-rounds'
import { gameNames, wayTo } from './ways'
import { gameWords } from './words'

/** What can be practised, machine by machine, with how the last run went; what is due of one's own weak points first. */
export function Practice() {
  const [yard, games, runs, points] = [useYard(), usePracticeGames(), usePractice(), usePracticePoints()]
  const due = dueNow(points.data?.points ?? [])
  const known = runs.data?.runs ?? []
  return (
    <>
      <Title
        below={t`On the machines of this yard, by their own levers, speeds and tables. It proves nothing: no lift, no set-up, no licence.`}
      >
        {t`Practice`}
      </Title>
      <Link
        to="/practice/five"
        className={clsx(
          'mb-4 flex min-h-16 flex-wrap items-center gap-x-4 rounded-lg border-2 border-ink px-5 py-2',
          due.length > 0 ? 'bg-accent text-on-accent shadow-[0_3px_0_var(--ink)]' : 'bg-sheet',
        )}
      >
        <span className="text-lg font-bold">{t`Five minutes`}</span>
        <span>{dueWords(due.length)}</span>
      </Link>
      <ExamsOffer />
      <Loaded query={yard}>
        {(y) => (
          <Loaded query={games}>
            {({ machines }) => (
              <ul className="grid gap-3 pb-6 sm:grid-cols-2 lg:grid-cols-3">
                {y.machines.map((m) => {
                  const of = machines.find((g) => g.machine === m.id)
                  return of && gamesIn(of).length > 0 && <MachineCard key={m.id} machine={m} games={of} runs={known} />
                })}
              </ul>
            )}
          </Loaded>
        )}
      </Loaded>
      <Sheet title={t`Your last runs`}>
        {known.length === 0 ? (
          <p className="text-quiet">{t`None yet. Nobody but you sees them.`}</p>
        ) : (
          <>
            <Link
              to="/practice/progress"
              className="mb-2 inline-flex min-h-12 items-center font-semibold underline underline-offset-4"
            >
              {t`How it goes, skill by skill`}
            </Link>
            <ul className="grid gap-2">
              {known.slice(0, 12).map((r) => (
                <li key={r.id} className="flex flex-wrap items-baseline gap-x-3 border-l-4 border-line pl-3">
                  <strong className="tabular-nums">{Math.round(r.score)}</strong>
                  <span>
                    {r.machineName}, {gameWords[r.game]}
                  </span>
                  <span className="text-quiet">
                    {t`level ${Math.round(r.level * 100)}`}, {when(r.at)}
                  </span>
                  {r.game === 'load' && !r.same && <span className="text-quiet">{t`made with another version`}</span>}
                </li>
              ))}
            </ul>
          </>
        )}
      </Sheet>
    </>
  )
}

const key = 'flex min-h-12 grow flex-col justify-center rounded-lg border-2 border-ink bg-paper px-3 py-1.5 hover:bg-sunk'

function MachineCard({
  machine: m,
  games,
  runs,
}: {
  machine: YardMachine
  games: PracticeGames['machines'][number]
  runs: readonly PracticeRecord[]
}) {
  return (
    <li className="rounded-lg border border-line bg-sheet p-3">
      <MachineDrawing machine={m} className="mb-2 h-14 w-full" />
      <h2 className="text-[1.15rem]">{m.name}</h2>
      <p className="text-quiet">{m.kind}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {gamesIn(games).map((game) => {
          const last = lastOf(runs, m.id, game)
          return (
            <Link key={game} to={wayTo(m.id, game)} className={key}>
              <strong>{gameNames[game]}</strong> <span className="sr-only">{ofMachine[game](m.name)}</span>
              <span className="text-[0.9rem] text-quiet">
                {last ? t`last ${Math.round(last.score)} of 100` : t`not tried yet`}
              </span>
            </Link>
          )
        })}
      </div>
    </li>
  )
}

/** After the name of a game, for who hears it. */
const ofMachine: Record<Game, (name: string) => string> = {
  load: (name) => t`on ${name},`,
  drive: (name) => t`with ${name},`,
  sequence: (name) => t`of ${name},`,
  signal: (name) => t`on ${name},`,
  judge: (name) => t`on ${name},`,
}

/** One machine in practice: its course, driven, and what it came to. */
export const PracticeOn = () => (
  <OnMachine game="load">{(f, level) => <Rounds key={f.definition.revision} machine={f.definition} level={level} />}</OnMachine>
)

function Rounds({ machine, level }: { machine: Machine; level: number }) {
  const { given, how, turn, run, over, again, next, leave } = useRounds<LoadRun>(level)
  const set = given?.settings ?? undefined
  const made = useMemo(
    () =>
      orRefused(() => {
        const rig = rigOf(machine)
        return { rig, course: courseFor(rig, how.seed, how.level, set) }
      }),
    [machine, how, set],
  )
  const onLeave = () => leave()
  if ('refused' in made) return <NotOffered title={t`Practice on ${machine.name}`} error={made.refused} onLeave={onLeave} />
  if (run) return <After machine={machine} course={made.course} run={run} onAgain={again} onNext={next} onLeave={onLeave} />
  return (
    <Play
      key={turn}
      machine={machine}
      rig={made.rig}
      course={made.course}
      how={{ ...how, set }}
      onOver={over}
      onLeave={onLeave}
    />
  )
}
