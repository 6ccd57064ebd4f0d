import type { PracticeRecord, YardMachine } from '@geolabe/contract'
import type { Machine, PracticeRun } from '@geolabe/core'
import { courseFor, rigOf } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { useMachine, usePractice, useYard } from '../api/queries'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { when } from '../look/when'
import { MachineDrawing } from '../yard/machine-drawing'
import { After } from './after'
import { type Asked, Play } from './play'

/** A little harder with every pass, easier by four times that with every miss: where four in five are passed it stays. */
const [harder, easier] = [0.02, 0.08]
const firstLevel = 0.1
const within = (level: number) => Math.round(100 * Math.max(0, Math.min(1, level))) / 100
const levelAfter = (r: Pick<PracticeRecord, 'level' | 'passed'> | undefined) =>
  r ? within(r.level + (r.passed ? harder : -easier)) : firstLevel

/** A course that nobody has driven yet. */
const newSeed = () => crypto.getRandomValues(new Uint32Array(1))[0] ?? 1

/** What can be practised, machine by machine, with how the last run went. */
export function Practice() {
  const yard = useYard()
  const runs = usePractice()
  return (
    <>
      <Title
        below={t`On the machines of this yard, by their own levers and speeds. It proves nothing: no lift, no set-up, no licence.`}
      >
        {t`Practice`}
      </Title>
      <Loaded query={yard}>
        {(y) => (
          <ul className="grid gap-3 pb-6 sm:grid-cols-2 lg:grid-cols-3">
            {y.machines
              .filter((m) => m.practised)
              .map((m) => (
                <MachineKey key={m.id} machine={m} last={runs.data?.runs.find((r) => r.machine === m.id)} />
              ))}
          </ul>
        )}
      </Loaded>
      <Sheet title={t`Your last runs`}>
        {(runs.data?.runs.length ?? 0) === 0 ? (
          <p className="text-quiet">{t`None yet. Nobody but you sees them.`}</p>
        ) : (
          <ul className="grid gap-2">
            {runs.data?.runs.slice(0, 12).map((r) => (
              <li key={r.id} className="flex flex-wrap items-baseline gap-x-3 border-l-4 border-line pl-3">
                <strong className="tabular-nums">{Math.round(r.score)}</strong>
                <span>{r.machineName}</span>
                <span className="text-quiet">
                  {t`level ${Math.round(r.level * 100)}`}, {when(r.at)}
                </span>
                {!r.same && <span className="text-quiet">{t`made with another version`}</span>}
              </li>
            ))}
          </ul>
        )}
      </Sheet>
    </>
  )
}

function MachineKey({ machine: m, last }: { machine: YardMachine; last: PracticeRecord | undefined }) {
  return (
    <li>
      <Link to={`/practice/${m.id}`} className="block h-full rounded-lg border-2 border-edge bg-sheet px-4 py-3 hover:border-ink">
        <MachineDrawing machine={m} className="mb-2 h-16 w-full" />
        <span className="block text-[1.15rem] font-bold">{m.name}</span>
        <span className="block text-quiet">{m.kind}</span>
        <span className="mt-1 block">
          {last ? t`Load control, last ${Math.round(last.score)} of 100` : t`Load control, not tried yet`}
        </span>
      </Link>
    </li>
  )
}

/** One machine in practice: its course, driven, and what it came to. */
export function PracticeOn() {
  const { machine = '' } = useParams()
  const file = useMachine(machine)
  const runs = usePractice()
  // What was practised last says how hard it is today; without the records it begins easy.
  if (runs.isLoading) return <Loaded query={runs}>{() => null}</Loaded>
  return (
    <Loaded query={file}>
      {(f) => (
        <Rounds
          key={f.definition.revision}
          machine={f.definition}
          level={levelAfter(runs.data?.runs.find((r) => r.machine === f.definition.id))}
        />
      )}
    </Loaded>
  )
}

function Rounds({ machine, level }: { machine: Machine; level: number }) {
  const navigate = useNavigate()
  const [asked, setAsked] = useState<Asked>(() => ({ seed: newSeed(), level }))
  const [turn, setTurn] = useState(0)
  const [run, setRun] = useState<PracticeRun | null>(null)
  const made = useMemo(() => {
    try {
      const rig = rigOf(machine)
      return { rig, course: courseFor(rig, asked.seed, asked.level) }
    } catch (e) {
      return { refused: e }
    }
  }, [machine, asked])
  const begin = (to: Asked) => {
    setRun(null)
    setAsked(to)
    setTurn(turn + 1)
  }
  const leave = () => navigate('/practice')
  if ('refused' in made)
    return (
      <>
        <Title>{t`Practice on ${machine.name}`}</Title>
        <Refused error={made.refused} />
        <Button onClick={leave}>{t`Leave practice`}</Button>
      </>
    )
  if (run)
    return (
      <After
        machine={machine}
        course={made.course}
        run={run}
        onAgain={() => begin({ ...asked })}
        onNext={(passed) => begin({ seed: newSeed(), level: levelAfter({ level: asked.level, passed }) })}
        onLeave={leave}
      />
    )
  return <Play key={turn} machine={machine} rig={made.rig} course={made.course} asked={asked} onOver={setRun} onLeave={leave} />
}
