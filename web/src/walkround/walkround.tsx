import type { RoundRequest, Shift, WalkFinishRequest } from '@geolabe/contract'
import { isRaised, itemsOf, type Placed, type RoundTime, readingsDue, roundTimeWords } from '@geolabe/core'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { Link, Navigate, useNavigate, useParams } from 'react-router'
import { ApiError, deviceId } from '../api/client'
import { outbox } from '../api/outbox'
import { putShift, queryClient, useOutbox } from '../api/queries'
import { DefectForm } from '../defects/defect-form'
import { typing } from '../help/help'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { ActionBar, Refused, Sheet, Title } from '../look/page'
import { type ShiftContext, useShiftContext } from '../shift/frame'
import { nextStation, standsSetUp } from '../shift/route-line'
import { ItemCard } from './item-card'
import { type NewMark, sendMark, useMarks } from './marks'
import { ZoneList, ZonePlan, ZoneSide } from './zone-plan'

/** Station 2: what can be proved where it stands; then, once the site is fit and the legs are set, what waited for that. */
export function Walkround() {
  const context = useShiftContext()
  const { shift, file } = context
  const all = itemsOf(file.definition.walkround)
  const raised = all.filter(isRaised)
  if (!shift.walk.finishedAt) {
    return <Round key="first" {...context} time="start" round={null} part="first" items={all.filter((x) => !isRaised(x))} />
  }
  if (raised.length === 0 || shift.walk.raisedAt) return <Finished {...context} items={all} />
  if (!shift.site?.fit || !standsSetUp(shift, file.definition)) return <Waits {...context} raised={raised} />
  return <Round key="raised" {...context} time="start" round={null} part="raised" items={raised} />
}

/** A further round of the shift: after an absence, or at its end. */
export function FurtherRound() {
  const context = useShiftContext()
  const { round = '' } = useParams()
  const { waiting } = useOutbox()
  // Begun on this device and not in the records yet: it is there all the same.
  const kept = waiting.map((w) => w.body as Partial<RoundRequest>).find((b) => b.id === round && b.time)
  const found =
    context.shift.rounds.find((r) => r.id === round) ?? (kept?.time ? { time: kept.time, finishedAt: null } : undefined)
  if (!found) return <p>This round is not in the records.</p>
  if (found.finishedAt) {
    const to = found.time === 'end' ? 'stow' : nextStation(context.shift, context.file.definition)
    return <Navigate to={`/shifts/${context.shift.id}/${to}`} replace />
  }
  const items = itemsOf(context.file.definition.walkround, found.time)
  return <Round key={round} {...context} time={found.time} round={round} part="first" items={items} />
}

function Waits({ shift, file, raised }: ShiftContext & { raised: Placed[] }) {
  const next = nextStation(shift, file.definition)
  return (
    <>
      <Title below="The first part is finished.">{`Walk round ${file.definition.name}`}</Title>
      <Sheet title="This waits" className="max-w-2xl">
        <p className="mb-2">
          Proved over its travel once you have looked up and round
          {file.definition.procedures.setup.length > 0 && ', and it is set up'}.
        </p>
        <ul className="list-disc pl-6">
          {raised.map((x) => (
            <li key={x.item.id}>{x.item.label}</li>
          ))}
        </ul>
      </Sheet>
      <ActionBar>
        <NextLink shift={shift} to={next} label={next === 'site' ? 'On to the site' : 'On to setting up'} />
      </ActionBar>
    </>
  )
}

const NextLink = ({ shift, to, label }: { shift: Shift; to: string; label: string }) => (
  <Link
    className="inline-flex min-h-16 items-center justify-center rounded-lg border-2 border-ink bg-accent px-7 text-lg font-bold text-on-accent shadow-[0_3px_0_var(--ink)]"
    to={`/shifts/${shift.id}/${to}`}
  >
    {label}
  </Link>
)

function Finished({ shift, file, items }: ShiftContext & { items: Placed[] }) {
  const marks = useMarks(shift, null)
  return (
    <>
      <Title below={`${items.length} items, all looked at`}>{`Walk round ${file.definition.name}`}</Title>
      <div className="grid max-w-3xl gap-4 pb-6">
        <ZonePlan machine={file.definition} items={items} marks={marks} here={null} onZone={() => {}} />
        {shift.rounds.length > 0 && (
          <ul>
            {shift.rounds.map((r) => (
              <li key={r.id}>
                {roundTimeWords[r.time]}: {r.finishedAt ? `${r.marks.length} items looked at` : 'under way'}
              </li>
            ))}
          </ul>
        )}
      </div>
      <ActionBar>
        <NextLink shift={shift} to={nextStation(shift, file.definition)} label="Go on" />
      </ActionBar>
    </>
  )
}

interface RoundProps extends ShiftContext {
  time: RoundTime
  /** null: the round before the shift. */
  round: string | null
  part: 'first' | 'raised'
  items: Placed[]
}

const titles: Record<RoundTime, string> = { start: 'Walk round', absence: 'Back at', end: 'Once more round' }

/** Once round in one direction, one item at a time; each answer is kept as it is tapped. */
function Round({ shift, file, time, round, part, items }: RoundProps) {
  const machine = file.definition
  const navigate = useNavigate()
  const marks = useMarks(shift, round)
  const { waiting } = useOutbox()
  const firstOpen = items.findIndex((x) => !marks.has(x.item.id))
  const [at, setAt] = useState(() => Math.max(0, firstOpen))
  const begun = time !== 'start' || part === 'raised' || shift.walk.handsOnAt !== null || items.some((x) => marks.has(x.item.id))
  const [touched, setTouched] = useState(false)
  const started = touched || begun
  const [defect, setDefect] = useState<{ reading: number | null } | null>(null)
  const [error, setError] = useState<unknown>(null)
  const here = items[Math.min(at, items.length - 1)] as Placed
  const complete = firstOpen < 0
  const done = items.filter((x) => marks.has(x.item.id)).length
  const zones = [...new Set(items.map((x) => x.zone))]
  // By what was on record before this shift: what is entered in it changes nothing of what is due.
  const due = useMemo(() => {
    const before = Object.fromEntries(
      Object.entries(file.readings).map(([k, list]) => [k, list.filter((r) => r.at < shift.openedAt)]),
    )
    const all = itemsOf(file.definition.walkround, time)
    return new Map(readingsDue(all, before, shift.openedAt.slice(0, 10)).map((d) => [d.item, d.why]))
  }, [file.readings, file.definition.walkround, shift.openedAt, time])

  const mark = useCallback(
    (m: Pick<NewMark, 'result' | 'reading' | 'because' | 'plate'>) => {
      setError(null)
      const known = marks.get(here.item.id)
      // What another device said is on the screen: marking it again says that this stands.
      const replaces = known?.saved && known.device !== deviceId() ? known.at : null
      sendMark(shift, round, { ...m, item: here.item.id, at: new Date().toISOString(), replaces }).catch((e) => {
        setError(e)
        if (e instanceof ApiError && e.body.code === 'marked-elsewhere') {
          void queryClient.invalidateQueries({ queryKey: ['shift', shift.id] })
        }
        setAt(at)
      })
      // On to the next that has not been looked at, in walking order; else to the end.
      const next = items.findIndex((x, i) => i > at && !marks.has(x.item.id))
      const earlier = items.findIndex((x) => x.item.id !== here.item.id && !marks.has(x.item.id))
      setAt(next >= 0 ? next : earlier >= 0 ? earlier : at)
    },
    [shift, round, here, at, items, marks],
  )

  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (typing(e) || e.ctrlKey || e.metaKey || e.altKey || defect || !started) return
      if (e.key.toLowerCase() === 'b') setAt((i) => Math.max(0, i - 1))
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [defect, started])

  const begin = () => {
    setTouched(true)
    // Shown to everyone that somebody is at the machine; a round begins also where this cannot be told.
    outbox
      .send<Shift>(`/shifts/${shift.id}/hands-on`, { on: true })
      .then((s) => putShift(shift.id, s))
      .catch(() => {})
  }

  const finish = async () => {
    setError(null)
    const body: WalkFinishRequest = { round, part }
    try {
      const s = await outbox.sendPatiently<Shift>(`/shifts/${shift.id}/walk-finish`, body)
      // Without a network: taken as finished here; the records hear of it in its turn.
      putShift(shift.id, (old) => s ?? (old && finishedHere(old, round, part)))
      const now = queryClient.getQueryData<Shift>(['shift', shift.id]) ?? shift
      navigate(`/shifts/${shift.id}/${time === 'end' ? 'stow' : nextStation(now, machine)}`)
    } catch (e) {
      setError(e)
    }
  }

  if (!started) {
    return (
      <>
        <Title below={`${items.length} items in ${zones.length} zones`}>{`Walk round ${machine.name}`}</Title>
        <ol className="grid max-w-2xl gap-3 text-lg">
          {machine.walkround.before.map((b) => (
            <li key={b} className="border-l-4 border-accent pl-4">
              {b}
            </li>
          ))}
        </ol>
        <div className="mt-5 grid items-start gap-3 pb-4 md:grid-cols-2">
          <ZonePlan machine={machine} items={items} marks={marks} here={null} onZone={begin} />
          <ZoneSide machine={machine} zone={null} number={0} />
        </div>
        <ActionBar>
          <Button look="next" onClick={begin}>
            Isolated and tagged, begin
          </Button>
        </ActionBar>
      </>
    )
  }
  const lead = part === 'raised' ? 'Raised, over its travel' : `${titles[time]} ${machine.name}`
  return (
    <>
      <Title
        below={`${done} of ${items.length} looked at${waiting.length > 0 ? `, ${waiting.length} still on their way to the records` : ''}`}
      >
        {lead}
      </Title>
      <div className="grid items-start gap-5 md:grid-cols-[minmax(0,1fr)_minmax(0,1.25fr)]">
        <div className="max-md:order-2">
          <ZonePlan
            machine={machine}
            items={items}
            marks={marks}
            here={here.zone.id}
            onZone={(zone) => setAt(items.findIndex((x) => x.zone.id === zone))}
          />
          <div className="mt-2 max-md:hidden">
            <ZoneSide machine={machine} zone={here.zone} number={zones.indexOf(here.zone) + 1} />
          </div>
          <ZoneList
            zone={here.zone}
            items={items}
            marks={marks}
            here={here.item.id}
            onItem={(item) => setAt(items.findIndex((x) => x.item.id === item))}
          />
        </div>
        <div className="grid gap-4 pb-4">
          <ItemCard
            key={here.item.id}
            file={file}
            zone={here.zone}
            item={here.item}
            mark={marks.get(here.item.id)}
            due={due.get(here.item.id) ?? null}
            zoneNumber={zones.indexOf(here.zone) + 1}
            onMark={mark}
            onDefect={(reading) => setDefect({ reading })}
            onBack={at > 0 ? () => setAt(at - 1) : null}
          />
          <Refused error={error} />
        </div>
      </div>
      {complete && (
        <ActionBar why="Everything has been looked at.">
          <Button look="next" onClick={() => void finish()}>
            {part === 'raised' ? 'Finish the second part' : 'Finish the walk-round'}
          </Button>
        </ActionBar>
      )}
      <Dialog open={defect !== null} onClose={() => setDefect(null)} title={`Defect: ${here.item.label}`}>
        <DefectForm
          machine={machine.id}
          definition={machine}
          shift={shift.id}
          item={here.item.id}
          where={`${here.zone.label} · ${here.item.label}`}
          near={here.zone.at}
          onRaised={() => {
            const reading = defect?.reading ?? null
            setDefect(null)
            mark({ result: 'defect', reading })
          }}
        />
      </Dialog>
    </>
  )
}

function finishedHere(s: Shift, round: string | null, part: 'first' | 'raised'): Shift {
  const now = new Date().toISOString()
  if (round !== null) return { ...s, rounds: s.rounds.map((r) => (r.id === round ? { ...r, finishedAt: now } : r)) }
  return part === 'raised' ? { ...s, walk: { ...s.walk, raisedAt: now } } : { ...s, walk: { ...s.walk, finishedAt: now } }
}
