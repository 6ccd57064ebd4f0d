import { type MachineFile, type Me, type OpenShiftRequest, type Shift, station } from '@geolabe/contract'
import { impedimentsTo, licenceExpiries, type Place, type PracticeAsked } from '@geolabe/core'
import clsx from 'clsx'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { newId } from '../api/client'
import { queryClient, useMe } from '../api/me'
import { outbox } from '../api/outbox'
import { putShift, useMachine, usePlaces } from '../api/queries'
import { rich } from '../language/rich'
import { plural, t, told } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { ActionBar, Loaded, Refused, Sheet, Title } from '../look/page'
import { Tick } from '../look/tick'
import { date, day, when } from '../look/when'
import { usePracticeAsked } from '../practice/use-asked'
import { RouteLine, stationsOf } from '../shift/route-line'
import { HandoverLines } from '../stow/handover-lines'
import { StateMark } from '../yard/yard'
import { Controls } from './controls'

const nothingYet = {
  'sign-on': 'open',
  'walk-round': 'open',
  site: 'open',
  'set-up': 'open',
  prove: 'open',
  lift: 'open',
  stow: 'open',
} as const

/** Station 1: the right person for the machine, with what it asks for, knowing what the last one left. */
export function Take() {
  const { machine = '' } = useParams()
  const file = useMachine(machine)
  const places = usePlaces()
  const me = useMe()
  return (
    <>
      <div className="mx-[calc(50%-50vw)] -mt-5 mb-5">
        <RouteLine
          stations={file.data ? stationsOf(file.data.definition) : station.options}
          states={nothingYet}
          here="sign-on"
          linkTo={null}
        />
      </div>
      <Loaded query={file}>
        {(f) => <Loaded query={places}>{(p) => me.data && <TakeMachine file={f} places={p.places} me={me.data} />}</Loaded>}
      </Loaded>
    </>
  )
}

function TakeMachine({ file, places, me }: { file: MachineFile; places: Place[]; me: Me }) {
  const m = file.definition
  const navigate = useNavigate()
  const [place, setPlace] = useState(places.find((p) => places.length === 1 || p.id === file.state.lastPlace)?.id ?? null)
  const [ticked, setTicked] = useState<Record<string, boolean>>({})
  const [read, setRead] = useState(false)
  const [error, setError] = useState<unknown>(null)
  const [sending, setSending] = useState(false)
  const impediments = impedimentsTo(me, m, new Date().toISOString().slice(0, 10))
  const stops = file.stopping[0]
  const holder = file.state.holder
  const wanted = [...m.ppe, ...m.documents]
  const missing = wanted.filter((w) => !ticked[w.id]).length
  const licence = me.licences
    .filter((l) => l.class === m.licence.class)
    .sort((a, b) => b.validUntil.localeCompare(a.validUntil))[0]
  const expiry = licenceExpiries(me, new Date().toISOString().slice(0, 10)).find(
    (x) => x.class === m.licence.class && x.state === 'soon',
  )
  const asked = usePracticeAsked(m, places.find((p) => p.id === place) ?? null)
  const why = !place
    ? t`Choose the place.`
    : asked?.must
      ? t`This site asks for practice first.`
      : missing > 0
        ? t`${missing} to confirm.`
        : !read
          ? t`Read what the last shift left.`
          : ''

  const go = async () => {
    if (!place) return
    setSending(true)
    setError(null)
    const body: OpenShiftRequest = {
      id: newId(),
      machine: m.id,
      place,
      ppe: m.ppe.map((w) => w.id),
      documents: m.documents.map((p) => p.id),
      readHandover: true,
    }
    try {
      const shift = await outbox.send<Shift>('open-shift', {}, body)
      putShift(shift.id, shift)
      void queryClient.invalidateQueries({ queryKey: ['yard'] })
      navigate(`/shifts/${shift.id}/walk-round`)
    } catch (e) {
      setError(e)
      void queryClient.invalidateQueries({ queryKey: ['machine', m.id] })
    } finally {
      setSending(false)
    }
  }
  const barred = impediments.length > 0 || stops || holder
  return (
    <>
      <div className="flex flex-wrap items-start justify-between gap-4">
        <Title below={`${m.kind.label} · ${m.note}`}>{t`Sign on to ${m.name}`}</Title>
        <StateMark state={file.state.state} />
      </div>
      {barred && (
        <div role="alert" className="mb-4 overflow-hidden rounded-xl border-2 border-outside bg-sheet">
          <div className="h-3 hatch-outside" />
          <div className="p-4">
            {stops && (
              <p className="text-lg">{rich`${<strong className="text-outside">{t`${m.name} is stopped.`}</strong>} ${stops.where}: ${stops.words}. The person in charge returns it to service after the repair.`}</p>
            )}
            {holder && (
              <p className="text-lg">{rich`${<strong className="text-outside">{t`${holder.person.name} has this machine`}</strong>} at ${holder.place}, since ${when(holder.since)}. It is free when that shift is handed over.`}</p>
            )}
            {impediments.length > 0 && (
              <>
                <p className="text-lg font-bold text-outside">{t`You may not operate ${m.name} today.`}</p>
                <ul>
                  {impediments.map((b) => (
                    <li key={b.code} className="mt-2">
                      {told(b.why)} <strong>{told(b.resolution)}</strong>
                    </li>
                  ))}
                </ul>
              </>
            )}
          </div>
        </div>
      )}
      <div className="grid gap-4 md:grid-cols-2">
        <Sheet title={t`What the last shift left`}>
          {file.handover ? (
            <>
              <p className="text-lg">“{file.handover.words || t`No words left.`}”</p>
              <p className="mt-2 text-quiet">
                {file.handover.by.name}, {day(file.handover.at)}
              </p>
              <HandoverLines lines={file.handover.lines.filter((l) => l.about !== 'defect')} />
            </>
          ) : (
            <p>{t`Nobody has handed it over yet.`}</p>
          )}
          <h3 className="mt-4 mb-1">{t`Watched defects`}</h3>
          {file.watched.length === 0 ? (
            <p>{t`None.`}</p>
          ) : (
            <ul className="grid gap-2">
              {file.watched.map((d) => (
                <li key={d.id} className="border-l-4 border-near pl-3">
                  <span className="font-semibold">{d.where}</span>: {d.words}{' '}
                  <span className="text-quiet">
                    ({d.raised.by.name}, {day(d.raised.at)})
                  </span>
                </li>
              ))}
            </ul>
          )}
          {!barred && (
            <div className="mt-4">
              <Tick checked={read} onChange={setRead}>{t`I have read this`}</Tick>
            </div>
          )}
        </Sheet>
        {!barred && (
          <Sheet title={t`You and the machine`}>
            <p className="mb-3">{rich`${m.licence.label} licence, grade ${licence?.grade}, valid until ${<strong className="figure">{licence && date(licence.validUntil)}</strong>}. Trained on this kind.`}</p>
            <Choice
              label={t`Place`}
              value={place}
              onChange={setPlace}
              options={places.map((p) => ({ value: p.id, label: p.name }))}
            />
            {asked?.must && <Practice asked={asked} />}
            <div className="mt-4 grid gap-2 sm:grid-cols-2">
              {wanted.map((w) => (
                <Tick key={w.id} checked={ticked[w.id] ?? false} onChange={(v) => setTicked((t) => ({ ...t, [w.id]: v }))}>
                  {w.label}
                </Tick>
              ))}
            </div>
          </Sheet>
        )}
      </div>
      {asked && !asked.must && !barred && <Practice asked={asked} />}
      {expiry && !barred && (
        <p className="mt-4 border-l-4 border-near pl-3 font-semibold">
          {plural(
            expiry.daysLeft,
            {
              one: 'Your licence for this class runs out in # day, on {1}.',
              other: 'Your licence for this class runs out in # days, on {1}.',
            },
            date(expiry.validUntil),
          )}
          {expiry.daysLeft === 0 && t` After midnight you may not go on.`}
        </p>
      )}
      <Controls file={file} />
      <div className="mt-4">
        <Refused error={error} />
      </div>
      {!barred && (
        <ActionBar why={why}>
          <Button
            look="next"
            disabled={why !== '' || sending}
            onClick={() => void go()}
          >{t`Take ${m.name}, begin the walk-round`}</Button>
        </ActionBar>
      )}
    </>
  )
}

/** What practice the site asks for, or recommends; where to. */
function Practice({ asked: { must, why, resolution } }: { asked: PracticeAsked }) {
  return (
    <p className={clsx('mt-3 border-l-4 pl-3', must ? 'border-outside' : 'border-near')}>
      {told(why)} <strong className={must ? 'text-outside' : ''}>{told(resolution)}</strong>
      <Link
        to="/practice"
        className="flex min-h-12 w-fit items-center font-semibold underline underline-offset-4"
      >{t`To practice`}</Link>
    </p>
  )
}
