import type { MachineState, YardMachine } from '@geolabe/contract'
import { type Grade, gradeWords } from '@geolabe/contract'
import clsx from 'clsx'
import { Link } from 'react-router'
import { useMachine, useMe, useShift, useYard } from '../api/queries'
import { MachineSide } from '../instruments/machine-shape'
import { Loaded, Title } from '../look/page'
import { day, when } from '../look/when'
import { nextStation } from '../shift/route-line'

const stateWords: Record<MachineState, string> = { ready: 'Ready', 'in-use': 'In use', stopped: 'Stopped' }

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

export function Yard() {
  const yard = useYard()
  const me = useMe()
  return (
    <>
      <Title below={me.data?.organisation.name}>Yard</Title>
      <Loaded query={yard}>
        {({ machines }) => (
          <ul className="grid gap-4 pb-8 lg:grid-cols-2">
            {machines.map((m) => (
              <MachineCard
                key={m.id}
                machine={m}
                mine={m.holder?.person.id === me.data?.id}
                operator={Boolean(me.data?.roles.includes('operator'))}
                inCharge={Boolean(me.data?.roles.includes('person-in-charge'))}
              />
            ))}
          </ul>
        )}
      </Loaded>
    </>
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
  const file = useMachine(m.id)
  const outline = file.data?.definition.outline.side ?? []
  const boom = file.data?.definition.boom
  const xs = [
    ...outline.flatMap((p) => p.points.map(([x]) => x)),
    ...(boom ? [(boom.lengths_m[0] ?? 0) - boom.pivot.back_m + 0.4] : []),
  ]
  return (
    <li
      className={clsx(
        'flex flex-col overflow-hidden rounded-xl border-2 bg-sheet only:lg:col-span-2',
        m.state === 'stopped' ? 'border-outside' : 'border-line',
      )}
    >
      {m.state === 'stopped' && <div className="h-3 hatch-outside" />}
      <div className="flex grow flex-col gap-3 p-4">
        <div className="flex items-start justify-between gap-4">
          <div>
            <h2 className="text-[1.7rem] leading-none">{m.name}</h2>
            <p className="mt-1 text-quiet">{m.kind}</p>
          </div>
          <StateMark state={m.state} />
        </div>
        {file.data && (
          <svg
            viewBox={`${Math.min(...xs) - 0.3} -3.3 ${Math.max(...xs) - Math.min(...xs) + 0.6} 3.4`}
            className="h-32 w-full"
            role="img"
            aria-label={`${m.name} from the side`}
          >
            <path d={`M-20 0H20`} stroke="var(--ink)" strokeWidth="0.04" />
            <MachineSide machine={file.data.definition} thin={0.03} stowed />
          </svg>
        )}
        <p>
          {m.stoppedBy ? (
            <>
              <strong>{gradeWords[m.stoppedBy.grade as Grade].label}.</strong> {m.stoppedBy.where}: {m.stoppedBy.words}.{' '}
              <Link className="font-semibold underline underline-offset-4" to={`/defects/${m.stoppedBy.id}`}>
                {m.stoppedBy.state === 'repaired' ? 'Repaired, waits for its return' : 'See the defect'}
              </Link>
            </>
          ) : m.holder ? (
            <>
              <strong>{m.holder.person.name}</strong> at {m.holder.place}, since {when(m.holder.since)}
            </>
          ) : (
            m.note
          )}
        </p>
        <p className="text-quiet">
          {m.watched > 0 && `${m.watched} watched ${m.watched === 1 ? 'defect' : 'defects'} · `}
          {m.hours !== null && `${m.hours.toLocaleString()} h · `}
          {m.lastHandOver ? `handed over ${day(m.lastHandOver)}` : 'no hand-over yet'}
        </p>
        <div className="mt-auto flex flex-wrap gap-2 pt-1">
          {mine && m.holder ? (
            <GoOn shift={m.holder.shift} />
          ) : (
            operator && (
              <Link
                className={clsx(
                  'flex min-h-14 grow items-center justify-center rounded-lg border-2 border-ink px-6 text-lg font-bold',
                  m.state === 'ready' ? 'bg-accent text-on-accent' : 'bg-sheet',
                )}
                to={`/take/${m.id}`}
              >
                {m.state === 'ready' ? `Sign on to ${m.name}` : `Look at ${m.name}`}
              </Link>
            )
          )}
          <Link
            className="flex min-h-14 items-center rounded-lg border-2 border-edge px-4 font-semibold"
            to={`/defects?raise=${m.id}`}
          >
            {inCharge && m.state !== 'stopped' ? 'Take out of service' : 'Report a defect'}
          </Link>
        </div>
      </div>
    </li>
  )
}

function GoOn({ shift }: { shift: string }) {
  const s = useShift(shift)
  return (
    <Link
      className="flex min-h-14 grow items-center justify-center rounded-lg border-2 border-ink bg-accent px-6 text-lg font-bold text-on-accent"
      to={`/shifts/${shift}/${s.data ? nextStation(s.data) : 'walk-round'}`}
    >
      Go on with your shift
    </Link>
  )
}
