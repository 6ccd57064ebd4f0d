import type { Grade, MachineState, YardMachine } from '@geolabe/contract'
import clsx from 'clsx'
import { type ReactNode, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useMe } from '../api/me'
import { useMachine, useShift, useYard } from '../api/queries'
import { rich } from '../language/rich'
import { plural, t } from '../language/t'
import { gradeWords } from '../language/words'
import { Choice } from '../look/choice'
import { TextField } from '../look/field'
import { Loaded, Title } from '../look/page'
import { clock, date, day, when } from '../look/when'
import { nextStation } from '../shift/route-line'
import { MachineDrawing } from './machine-drawing'

const stateWords: Record<MachineState, string> = { ready: t`Ready`, 'in-use': t`In use`, stopped: t`Stopped` }

export function StateMark({ state }: { state: MachineState }) {
  return (
    <span className={clsx('inline-flex items-center gap-2 text-xl font-bold', state === 'stopped' ? 'text-outside' : 'text-ink')}>
      <svg viewBox="0 0 24 24" className="size-6" aria-hidden="true">
        {state === 'ready' && <circle cx="12" cy="12" r="9" fill="none" stroke="currentColor" strokeWidth="4" />}
        {state === 'in-use' && (
          <>
            <circle cx="12" cy="12" r="9" fill="none" stroke="currentColor" strokeWidth="3" />
            <path d="M12 3a9 9 0 0 1 0 18Z" fill="currentColor" />
          </>
        )}
        {state === 'stopped' && (
          <>
            <rect x="2" y="2" width="20" height="20" fill="currentColor" />
            <path d="m7 7 10 10m0-10L7 17" stroke="var(--on-verdict)" strokeWidth="3" />
          </>
        )}
      </svg>
      {stateWords[state]}
    </span>
  )
}

type Which = 'all' | MachineState | 'due'
const isDue = (m: YardMachine) => m.nextDue?.state === 'overdue' || m.nextDue?.state === 'soon'
const passes = (m: YardMachine, which: Which, words: string) =>
  (which === 'all' || (which === 'due' ? isDue(m) : m.state === which)) &&
  `${m.name} ${m.kind}`.toLowerCase().includes(words.trim().toLowerCase())

/** @param offer one line to whoever has no machine */
export function Yard({ offer }: { offer: ReactNode }) {
  const yard = useYard()
  const me = useMe()
  const [params, setParams] = useSearchParams()
  const wall = params.get('wall') !== null
  const which = (params.get('which') ?? 'all') as Which
  const [words, setWords] = useState('')
  const set = (to: Record<string, string | null>) => {
    const next = new URLSearchParams(params)
    for (const [k, v] of Object.entries(to)) {
      if (v === null) next.delete(k)
      else next.set(k, v)
    }
    setParams(next, { replace: true })
  }
  return (
    <>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <Title below={me.data?.organisation.name}>{t`Yard`}</Title>
        <div className="mb-3 flex gap-2">
          <Link
            to="/practice"
            className="flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold sm:hidden"
          >{t`Practice`}</Link>
          <button
            type="button"
            className="min-h-12 rounded-lg border-2 border-edge px-4 font-semibold"
            aria-pressed={wall}
            onClick={() => set({ wall: wall ? null : '' })}
          >
            {wall ? t`Leave wall view` : t`Wall view`}
          </button>
        </div>
      </div>
      <Loaded query={yard}>
        {({ machines }) => {
          const mine = (m: YardMachine) => m.holder?.person.id === me.data?.id
          const free = !machines.some(mine)
          const count = (w: Which) => machines.filter((m) => passes(m, w, '')).length
          const shown = machines.filter((m) => passes(m, which, words)).sort((a, b) => rank(a, mine(a)) - rank(b, mine(b)))
          return (
            <>
              {free && !wall && offer}
              {machines.length > 3 && (
                <div className="mb-4 grid items-end gap-3 md:grid-cols-[1fr_16rem]">
                  <Choice
                    label={t`Which machines`}
                    hideLabel
                    value={which}
                    onChange={(w) => set({ which: w === 'all' ? null : w })}
                    options={[
                      { value: 'all', label: t`All ${count('all')}` },
                      { value: 'ready', label: t`Ready ${count('ready')}` },
                      { value: 'in-use', label: t`In use ${count('in-use')}` },
                      { value: 'stopped', label: t`Stopped ${count('stopped')}` },
                      { value: 'due', label: t`Due ${count('due')}` },
                    ]}
                  />
                  {!wall && <TextField label={t`Name or kind`} value={words} onChange={setWords} />}
                </div>
              )}
              {shown.length === 0 && (
                <p className="rounded-xl border border-line bg-sheet p-6 text-lg">{t`No machine like this.`}</p>
              )}
              <ul
                className={clsx(
                  'grid gap-3 pb-8',
                  wall
                    ? 'mx-[calc(50%-50vw)] grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] px-4'
                    : 'md:grid-cols-2 lg:grid-cols-3',
                )}
              >
                {shown.map((m) =>
                  wall ? (
                    <WallCard key={m.id} machine={m} />
                  ) : (
                    <MachineCard
                      key={m.id}
                      machine={m}
                      mine={mine(m)}
                      operator={Boolean(me.data?.roles.includes('operator'))}
                      inCharge={Boolean(me.data?.roles.includes('person-in-charge'))}
                    />
                  ),
                )}
              </ul>
            </>
          )
        }}
      </Loaded>
    </>
  )
}

/** One's own machine first, then what is stopped, in use, overdue; the rest in the yard's own order. */
const rank = (m: YardMachine, mine: boolean) =>
  mine ? 0 : m.state === 'stopped' ? 1 : m.state === 'in-use' ? 2 : m.nextDue?.state === 'overdue' ? 3 : 4

/** Why it is as it is, in one line. */
function Reason({ machine: m }: { machine: YardMachine }) {
  if (m.stoppedBy) {
    return (
      <>
        <strong>{gradeWords[m.stoppedBy.grade as Grade].label}.</strong> {m.stoppedBy.where}: {m.stoppedBy.words}.
      </>
    )
  }
  if (m.handsOn) {
    return (
      <strong className="text-outside">{t`Hands on: ${m.handsOn.person.name} is on or under it, since ${clock(m.handsOn.since)}`}</strong>
    )
  }
  if (m.holder) {
    return <>{rich`${<strong>{m.holder.person.name}</strong>} at ${m.holder.place}, since ${when(m.holder.since)}`}</>
  }
  return <>{m.note}</>
}

function NextDue({ machine: m }: { machine: YardMachine }) {
  if (!m.nextDue) return null
  const { state, label } = m.nextDue
  const on = m.nextDue.date && date(m.nextDue.date)
  const said =
    state === 'overdue'
      ? on
        ? t`overdue since ${on}`
        : t`overdue`
      : state === 'never'
        ? t`never recorded`
        : on
          ? t`due ${on}`
          : t`due later`
  return (
    <span
      className={
        state === 'overdue' ? 'font-semibold text-outside' : state === 'later' ? 'text-quiet' : 'font-semibold text-near'
      }
    >
      {label}: <span className="whitespace-nowrap">{said}</span>
    </span>
  )
}

/** To be read from two metres: name, state, why. */
function WallCard({ machine: m }: { machine: YardMachine }) {
  return (
    <li
      className={clsx(
        'flex flex-col overflow-hidden rounded-xl border-4 bg-sheet',
        m.state === 'stopped' ? 'border-outside' : 'border-line',
      )}
    >
      {m.state === 'stopped' && <div className="h-4 hatch-outside" />}
      <div className="grid gap-1 p-3">
        <div className="flex items-center justify-between gap-2">
          <h2 className="text-[2rem] leading-none">{m.name}</h2>
          <StateMark state={m.state} />
        </div>
        <p className="line-clamp-2 text-lg leading-snug">
          <Reason machine={m} />
        </p>
        <p className="text-[0.98rem]">
          <NextDue machine={m} />
        </p>
      </div>
    </li>
  )
}

function MachineCard({
  machine: m,
  mine,
  operator,
  inCharge,
}: {
  machine: YardMachine
  mine: boolean
  operator: boolean
  inCharge: boolean
}) {
  return (
    <li
      className={clsx(
        'flex flex-col overflow-hidden rounded-xl border-2 bg-sheet',
        m.state === 'stopped' ? 'border-outside' : mine ? 'border-ink' : 'border-line',
      )}
    >
      {m.state === 'stopped' && <div className="h-3 hatch-outside" />}
      <div className="flex grow flex-col gap-2.5 p-4">
        <div className="flex items-start justify-between gap-3">
          <div>
            <h2 className="text-[1.6rem] leading-none">
              <Link to={`/machines/${m.id}`} className="-my-2 inline-flex min-h-12 items-center hover:underline">
                {m.name}
              </Link>
            </h2>
            <p className="text-quiet">{m.kind}</p>
          </div>
          <StateMark state={m.state} />
        </div>
        <MachineDrawing machine={m} className="h-24 w-full" />
        <p className="leading-snug">
          <Reason machine={m} />{' '}
          {m.stoppedBy && (
            <Link className="font-semibold underline underline-offset-4" to={`/defects/${m.stoppedBy.id}`}>
              {m.stoppedBy.state === 'repaired' || m.stoppedBy.state === 'verified'
                ? t`Repaired, waits for its return`
                : t`See the defect`}
            </Link>
          )}
        </p>
        <p className="text-[0.95rem] text-quiet">
          <NextDue machine={m} />
          <span className="block">
            {m.watched > 0 && plural(m.watched, { one: '# watched defect · ', other: '# watched defects · ' })}
            {m.hours !== null && `${m.hours.toLocaleString()} h · `}
            {m.lastHandover ? t`handed over ${day(m.lastHandover)}` : t`no handover yet`}
          </span>
        </p>
        <div className="mt-auto flex flex-wrap gap-2 pt-1">
          {mine && m.holder ? (
            <GoOn shift={m.holder.shift} machine={m.id} />
          ) : (
            operator && (
              <Link
                className={clsx(
                  'flex min-h-13 grow items-center justify-center rounded-lg border-2 border-ink px-4 text-lg font-bold',
                  m.state === 'ready' ? 'bg-accent text-on-accent' : 'bg-sheet',
                )}
                to={`/take/${m.id}`}
              >
                {m.state === 'ready' ? t`Sign on to ${m.name}` : t`Look at ${m.name}`}
              </Link>
            )
          )}
          <Link
            className="flex min-h-13 grow items-center justify-center rounded-lg border-2 border-edge px-3 font-semibold"
            to={`/defects?raise=${m.id}`}
          >
            {inCharge && m.state !== 'stopped' ? t`Take out of service` : t`Report a defect`}
          </Link>
        </div>
      </div>
    </li>
  )
}

function GoOn({ shift, machine }: { shift: string; machine: string }) {
  const s = useShift(shift)
  const file = useMachine(machine)
  return (
    <Link
      className="flex min-h-13 grow items-center justify-center rounded-lg border-2 border-ink bg-accent px-4 text-lg font-bold text-on-accent"
      to={`/shifts/${shift}/${s.data && file.data ? nextStation(s.data, file.data.definition) : 'walk-round'}`}
    >{t`Go on with your shift`}</Link>
  )
}
