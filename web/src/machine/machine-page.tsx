import type { MachineFile, Me } from '@geolabe/contract'
import type { Role } from '@geolabe/core'
import clsx from 'clsx'
import { Tabs } from 'radix-ui'
import { lazy, Suspense, useState } from 'react'
import { Link, useParams } from 'react-router'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { useMachine } from '../api/queries'
import { dueWords } from '../due/due'
import { t } from '../language/t'
import { roleWords } from '../language/words'
import { Button } from '../look/button'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { when } from '../look/when'
import { Controls } from '../signon/controls'
import { HandoverLines } from '../stow/handover-lines'
import { PlateSays } from '../walkround/plate'
import { StateMark } from '../yard/yard'
import { SecondOfTwo } from './second-of-two'
import { WalkroundFilePanel } from './walkround-file'

const OrderPanel = lazy(() => import('../orders/order-panel').then((m) => ({ default: m.OrderPanel })))
const LifeLine = lazy(() => import('./life-line').then((m) => ({ default: m.LifeLinePanel })))
const tab =
  'min-h-12 border-b-4 border-transparent px-3 font-semibold data-[state=active]:border-accent data-[state=inactive]:text-quiet'
const tabs = [
  ['life', t`Life line`],
  ['now', t`As it stands`],
  ['controls', t`Controls and stops`],
  ['order', t`Order of work`],
  ['round', t`Walk-round`],
] as const

/** One machine: what happened to it, how it stands, its controls, and its walk-round as a file. */
export function MachinePage({ me }: { me: Me }) {
  const { id = '' } = useParams()
  const file = useMachine(id)
  return (
    <Loaded query={file}>
      {(f) => (
        <>
          <div className="flex flex-wrap items-start justify-between gap-3">
            <Title below={`${f.definition.kind.label} · ${f.definition.note}`}>{f.definition.name}</Title>
            <StateMark state={f.state.state} />
          </div>
          {f.state.holder && f.state.holder.person.id !== me.id && (
            <SecondOfTwo shift={f.state.holder.shift} operator={f.state.holder.person.name} machine={f.definition} />
          )}
          <Tabs.Root defaultValue="life">
            <Tabs.List className="mb-4 flex flex-wrap border-b border-line" aria-label={t`About ${f.definition.name}`}>
              {tabs.map(([value, label]) => (
                <Tabs.Trigger key={value} value={value} className={tab}>
                  {label}
                </Tabs.Trigger>
              ))}
            </Tabs.List>
            <Tabs.Content value="life">
              <Suspense fallback={<div className="h-64 animate-pulse rounded-xl bg-sunk" />}>
                <LifeLine file={f} />
              </Suspense>
            </Tabs.Content>
            <Tabs.Content value="now">
              <Now file={f} me={me} />
            </Tabs.Content>
            <Tabs.Content value="controls">
              {f.definition.controls.does.length === 0 ? <p>{t`No map of controls is on record.`}</p> : <Controls file={f} />}
            </Tabs.Content>
            <Tabs.Content value="order">
              <Suspense fallback={<div className="h-64 animate-pulse rounded-xl bg-sunk" />}>
                <OrderPanel file={f} me={me} />
              </Suspense>
            </Tabs.Content>
            <Tabs.Content value="round">
              <WalkroundFilePanel file={f} me={me} />
            </Tabs.Content>
          </Tabs.Root>
        </>
      )}
    </Loaded>
  )
}

function Now({ file: f, me }: { file: MachineFile; me: Me }) {
  const [error, setError] = useState<unknown>(null)
  const followed = async (id: string) => {
    setError(null)
    try {
      await call({ method: 'POST', path: `/overrides/${id}/followed`, body: {}, key: newId() })
      void queryClient.invalidateQueries({ queryKey: ['machine', f.definition.id] })
    } catch (e) {
      setError(e)
    }
  }
  return (
    <div className="grid items-start gap-4 pb-8 md:grid-cols-2">
      <Sheet title={t`What the last shift left`}>
        {f.handover ? (
          <>
            <p className="text-lg">“{f.handover.words || t`No words left.`}”</p>
            <p className="text-quiet">
              {f.handover.by.name}, {when(f.handover.at)}
            </p>
            <HandoverLines lines={f.handover.lines} />
          </>
        ) : (
          <p>{t`Nobody has handed it over yet.`}</p>
        )}
      </Sheet>
      <Sheet title={t`What falls due`}>
        <ul className="grid gap-1.5">
          {f.due.map((d) => (
            <li
              key={d.duty}
              className={clsx(
                'border-l-4 pl-3',
                d.state === 'overdue' ? 'border-outside' : d.state === 'later' ? 'border-line' : 'border-near',
              )}
            >
              <strong>{d.label}</strong>: {dueWords(d)}
            </li>
          ))}
        </ul>
      </Sheet>
      <Sheet title={t`Open defects`}>
        {f.stopping.length + f.watched.length === 0 ? (
          <p>{t`None.`}</p>
        ) : (
          <ul className="grid gap-2">
            {[...f.stopping, ...f.watched].map((d) => (
              <li
                key={d.id}
                className={clsx('border-l-4 pl-3', d.grade === 'watch' && !d.pending ? 'border-near' : 'border-outside')}
              >
                <Link className="font-semibold underline underline-offset-4" to={`/defects/${d.id}`}>
                  {d.where}
                </Link>
                : {d.words}
              </li>
            ))}
          </ul>
        )}
      </Sheet>
      <Sheet title={t`Rating plate`}>
        {f.plate ? (
          <dl className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
            {f.definition.plateFields.map((p) => (
              <div key={p.id} className="contents">
                <dt className="text-quiet">{p.label}</dt>
                <dd className="figure whitespace-nowrap font-semibold">
                  <PlateSays field={p} value={f.plate?.[p.id]} />
                </dd>
              </div>
            ))}
          </dl>
        ) : (
          <p>{t`Not entered yet; the next walk-round asks for it.`}</p>
        )}
      </Sheet>
      {f.openOverrides.length > 0 && (
        <Sheet title={t`Overrides: what must still follow`}>
          <ul className="grid gap-3">
            {f.openOverrides.map((o) => (
              <li key={o.id} className="border-l-4 border-outside pl-3">
                <p>
                  <strong>{o.label}</strong>, {when(o.at)}: {o.reason}
                </p>
                <p className="mb-2 font-semibold">{o.after}</p>
                {me.roles.some((r) => r === o.role) ? (
                  <Button onClick={() => void followed(o.id)}>{t`This has been done`}</Button>
                ) : (
                  <p className="text-quiet">{t`Held until the ${roleWords[o.role as Role]?.toLowerCase() ?? o.role} says that it is done.`}</p>
                )}
              </li>
            ))}
          </ul>
        </Sheet>
      )}
      <Refused error={error} />
    </div>
  )
}
