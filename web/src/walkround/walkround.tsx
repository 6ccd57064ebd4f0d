import {
  hasOrder,
  type Inspection,
  isRaised,
  itemsOf,
  type Machine,
  type Occasion,
  type Placed,
  preUseOf,
  readingsDue,
  type Shift,
  withEvent,
  type Zone,
} from '@geolabe/core'
import { type ReactNode, useCallback, useEffect, useMemo, useState } from 'react'
import { Link, Navigate, useNavigate, useParams } from 'react-router'
import { ApiError, deviceId } from '../api/client'
import { queryClient } from '../api/me'
import { outbox } from '../api/outbox'
import { putShift, useOutbox } from '../api/queries'
import { DefectForm } from '../defects/defect-form'
import { typing } from '../help/keys'
import { t, told } from '../language/t'
import { occasionWords } from '../language/words'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { Refused } from '../look/page'
import { Scrolls } from '../look/scrolls'
import { Station } from '../look/station'
import { type ShiftContext, useShiftContext } from '../order/context'
import { nextStation, standsSetUp } from '../shift/route-line'
import { type NewEntry, sendEntry, useEntries } from './entries'
import { ItemCard } from './item-card'
import { ZoneList, ZonePlan, ZoneSide } from './zone-plan'

/** Station 2: what can be proved where it stands; then, once the site is fit and the legs are set, what waited for that. */
export function Walkround() {
  const context = useShiftContext()
  const { shift, file } = context
  const all = itemsOf(file.definition.walkround)
  const raised = all.filter(isRaised)
  const inspection = preUseOf(shift)
  if (!inspection.finishedAt) {
    return <Round key="first" {...context} inspection={inspection} part="first" items={all.filter((x) => !isRaised(x))} />
  }
  if (raised.length === 0 || inspection.raisedAt) return <Finished {...context} items={all} />
  if (!shift.site?.fit || !standsSetUp(shift, file.definition)) return <Waits {...context} raised={raised} />
  return <Round key="raised" {...context} inspection={inspection} part="raised" items={raised} />
}

/** A further walk-round of the shift: after an absence, or at its end. */
export function FurtherInspection() {
  const context = useShiftContext()
  const { inspection = '' } = useParams()
  const found = context.shift.inspections.find((i) => i.id === inspection)
  if (!found) return <p>{t`This walk-round is not in the records.`}</p>
  if (found.finishedAt) {
    const to = found.occasion === 'end-of-shift' ? 'stow' : nextStation(context.shift, context.file.definition)
    return <Navigate to={`/shifts/${context.shift.id}/${to}`} replace />
  }
  const items = itemsOf(context.file.definition.walkround, found.occasion)
  return <Round key={inspection} {...context} inspection={found} part="first" items={items} />
}

function Waits({ shift, file, raised }: ShiftContext & { raised: Placed[] }) {
  const next = nextStation(shift, file.definition)
  return (
    <Station
      title={t`Walk round ${file.definition.name}`}
      below={t`The first part is finished.`}
      drawing={<FromAboveAndSide machine={file.definition} items={raised} entries={new Map()} here={null} onZone={() => {}} />}
      sheet={
        <Scrolls label={t`This waits`} className="rounded-xl border border-line bg-sheet p-3.5 roomy:h-full">
          <h2 className="mb-2">{t`This waits`}</h2>
          <p className="mb-2">{t`Proved over its travel once you have looked up and round${hasOrder(file.definition, 'setup') && t`, and it is set up`}.`}</p>
          <ul className="list-disc pl-6">
            {raised.map((x) => (
              <li key={x.item.id}>{told(x.item.label)}</li>
            ))}
          </ul>
        </Scrolls>
      }
      actions={<NextLink shift={shift} to={next} label={next === 'site' ? t`On to the site` : t`On to setting up`} />}
    />
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
  const entries = useEntries(preUseOf(shift))
  const further = shift.inspections.filter((i) => i.occasion !== 'pre-use')
  return (
    <Station
      title={t`Walk round ${file.definition.name}`}
      below={t`${items.length} items, all looked at`}
      drawing={<FromAboveAndSide machine={file.definition} items={items} entries={entries} here={null} onZone={() => {}} />}
      sheet={
        <Scrolls
          label={t`Walk round ${file.definition.name}`}
          className="rounded-xl border border-line bg-sheet p-3.5 roomy:h-full"
        >
          <ul>
            <li>{t`${items.length} items before use: all looked at`}</li>
            {further.map((r) => (
              <li key={r.id}>
                {occasionWords[r.occasion]}: {r.finishedAt ? t`${r.entries.length} items looked at` : t`under way`}
              </li>
            ))}
          </ul>
        </Scrolls>
      }
      actions={<NextLink shift={shift} to={nextStation(shift, file.definition)} label={t`Go on`} />}
    />
  )
}

/** The machine with its zones from above, where the zone lies from the side, and what belongs beneath. */
function FromAboveAndSide({
  machine,
  items,
  entries,
  here,
  onZone,
  children,
}: {
  machine: Machine
  items: readonly Placed[]
  entries: ReturnType<typeof useEntries>
  here: Zone | null
  onZone: (id: string) => void
  children?: ReactNode
}) {
  const zones = [...new Set(items.map((x) => x.zone))]
  return (
    <div className="flex flex-col gap-2 roomy:h-full">
      <div className="min-h-0 roomy:flex-[1.6]">
        <ZonePlan machine={machine} items={items} entries={entries} here={here?.id ?? null} onZone={onZone} />
      </div>
      <div className="min-h-0 flex-1 max-md:hidden">
        <ZoneSide machine={machine} zone={here} number={here ? zones.indexOf(here) + 1 : 0} />
      </div>
      {children && <div className="shrink-0 roomy:max-h-[10.5rem] roomy:overflow-y-auto">{children}</div>}
    </div>
  )
}

interface RoundProps extends ShiftContext {
  inspection: Inspection
  part: 'first' | 'raised'
  items: Placed[]
}

const titles: Record<Occasion, string> = {
  'pre-use': t`Walk round`,
  'after-absence': t`Back at`,
  'end-of-shift': t`Once more round`,
}

/** Once round in one direction, one item at a time; each answer is kept as it is tapped. */
function Round({ shift, file, inspection, part, items }: RoundProps) {
  const { occasion } = inspection
  const machine = file.definition
  const navigate = useNavigate()
  const entries = useEntries(inspection)
  const { waiting } = useOutbox()
  const firstOpen = items.findIndex((x) => !entries.has(x.item.id))
  const [at, setAt] = useState(() => Math.max(0, firstOpen))
  const begun =
    occasion !== 'pre-use' || part === 'raised' || inspection.handsOnAt !== null || items.some((x) => entries.has(x.item.id))
  const [touched, setTouched] = useState(false)
  const started = touched || begun
  const [defect, setDefect] = useState<{ reading: number | null } | null>(null)
  const [error, setError] = useState<unknown>(null)
  const here = items[Math.min(at, items.length - 1)] as Placed
  const complete = firstOpen < 0
  const done = items.filter((x) => entries.has(x.item.id)).length
  const zones = [...new Set(items.map((x) => x.zone))]
  // By what was on record before this shift: what is entered in it changes nothing of what is due.
  const due = useMemo(() => {
    const before = Object.fromEntries(
      Object.entries(file.readings).map(([k, list]) => [k, list.filter((r) => r.at < shift.openedAt)]),
    )
    const all = itemsOf(file.definition.walkround, occasion)
    return new Map(readingsDue(all, before, shift.openedAt.slice(0, 10)).map((d) => [d.item, d.why]))
  }, [file.readings, file.definition.walkround, shift.openedAt, occasion])

  const enter = useCallback(
    (m: Pick<NewEntry, 'result' | 'reading' | 'because' | 'plate'>) => {
      setError(null)
      const known = entries.get(here.item.id)
      // What another device said is on the screen: entering it again says that this stands.
      const replaces = known?.saved && known.device !== deviceId() ? known.at : null
      sendEntry(shift, inspection.id, { ...m, item: here.item.id, at: new Date().toISOString(), replaces }).catch((e) => {
        setError(e)
        if (e instanceof ApiError && e.body.code === 'entered-elsewhere') {
          void queryClient.invalidateQueries({ queryKey: ['shift', shift.id] })
        }
        setAt(at)
      })
      // On to the next that has not been looked at, in walking order; else to the end.
      const next = items.findIndex((x, i) => i > at && !entries.has(x.item.id))
      const earlier = items.findIndex((x) => x.item.id !== here.item.id && !entries.has(x.item.id))
      setAt(next >= 0 ? next : earlier >= 0 ? earlier : at)
    },
    [shift, inspection.id, here, at, items, entries],
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
    // Shown to everyone that somebody is at the machine; a walk-round begins also where this cannot be told.
    outbox
      .send<Shift>('hands-on', { shift: shift.id }, { inspection: inspection.id, on: true })
      .then((s) => putShift(shift.id, s))
      .catch(() => {})
  }

  const finish = async () => {
    setError(null)
    try {
      const s = await outbox.sendPatiently<Shift>('finish-inspection', { shift: shift.id }, { inspection: inspection.id, part })
      if (s) putShift(shift.id, s)
      // Without a network it is taken as finished here; the records hear of it in its turn.
      const event = {
        kind: 'inspection-finished',
        at: new Date().toISOString(),
        by: shift.operator,
        inspection: inspection.id,
        part,
      } as const
      navigate(`/shifts/${shift.id}/${occasion === 'end-of-shift' ? 'stow' : nextStation(s ?? withEvent(shift, event), machine)}`)
    } catch (e) {
      setError(e)
    }
  }

  if (!started) {
    return (
      <Station
        title={t`Walk round ${machine.name}`}
        below={t`${items.length} items in ${zones.length} zones`}
        drawing={<FromAboveAndSide machine={machine} items={items} entries={entries} here={null} onZone={begin} />}
        sheet={
          <Scrolls label={t`Walk round ${machine.name}`} className="roomy:h-full">
            <ol className="grid content-start gap-3 text-lg">
              {machine.walkround.before.map((b) => (
                <li key={b} className="border-l-4 border-accent pl-4">
                  {b}
                </li>
              ))}
            </ol>
          </Scrolls>
        }
        first="sheet"
        actions={<Button look="next" onClick={begin}>{t`Isolated and tagged, begin`}</Button>}
      />
    )
  }
  const lead = part === 'raised' ? t`Raised, over its travel` : `${titles[occasion]} ${machine.name}`
  return (
    <>
      <Station
        title={lead}
        below={t`${done} of ${items.length} looked at${waiting.length > 0 ? t`, ${waiting.length} still on their way to the records` : ''}`}
        head={<Refused error={error} />}
        drawing={
          <FromAboveAndSide
            machine={machine}
            items={items}
            entries={entries}
            here={here.zone}
            onZone={(zone) => setAt(items.findIndex((x) => x.zone.id === zone))}
          >
            <ZoneList
              zone={here.zone}
              items={items}
              entries={entries}
              here={here.item.id}
              onItem={(item) => setAt(items.findIndex((x) => x.item.id === item))}
            />
          </FromAboveAndSide>
        }
        first="sheet"
        sheet={
          <ItemCard
            key={here.item.id}
            file={file}
            zone={here.zone}
            item={here.item}
            entry={entries.get(here.item.id)}
            due={due.get(here.item.id) ?? null}
            zoneNumber={zones.indexOf(here.zone) + 1}
            onEntry={enter}
            onDefect={(reading) => setDefect({ reading })}
            onBack={at > 0 ? () => setAt(at - 1) : null}
          />
        }
        why={t`Everything has been looked at.`}
        actions={
          complete && (
            <Button look="next" onClick={() => void finish()}>
              {part === 'raised' ? t`Finish the second part` : t`Finish the walk-round`}
            </Button>
          )
        }
      />
      <Dialog open={defect !== null} onClose={() => setDefect(null)} title={t`Defect: ${told(here.item.label)}`}>
        <DefectForm
          machine={machine.id}
          definition={machine}
          shift={shift.id}
          item={here.item.id}
          where={`${here.zone.label} · ${told(here.item.label)}`}
          near={here.zone.at}
          onRaised={() => {
            const reading = defect?.reading ?? null
            setDefect(null)
            enter({ result: 'defect', reading })
          }}
        />
      </Dialog>
    </>
  )
}
