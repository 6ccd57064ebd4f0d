import type { Shift, WalkResult } from '@geolabe/contract'
import { itemsOf } from '@geolabe/core'
import { useCallback, useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { outbox } from '../api/outbox'
import { queryClient, useOutbox } from '../api/queries'
import { DefectForm } from '../defects/defect-form'
import { typing } from '../help/help'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { ActionBar, Refused, Title } from '../look/page'
import { useShiftContext } from '../shift/frame'
import { ItemCard } from './item-card'
import { sendMark, useMarks } from './marks'
import { ZoneList, ZonePlan } from './zone-plan'

/** Station 2: once round in one direction, one item at a time; each answer is kept as it is tapped. */
export function Walkround() {
  const { shift, file } = useShiftContext()
  const machine = file.definition
  const navigate = useNavigate()
  const marks = useMarks(shift)
  const { waiting } = useOutbox()
  const all = itemsOf(machine.walkround)
  const firstOpen = all.findIndex((x) => !marks.has(x.item.id))
  const [at, setAt] = useState(() => Math.max(0, firstOpen))
  const [started, setStarted] = useState(marks.size > 0)
  const [defect, setDefect] = useState(false)
  const [error, setError] = useState<unknown>(null)
  const here = all[Math.min(at, all.length - 1)] as (typeof all)[number]
  const complete = firstOpen < 0

  const mark = useCallback(
    (result: WalkResult, reading: number | null) => {
      setError(null)
      sendMark(shift, { item: here.item.id, result, reading, at: new Date().toISOString() }).catch((e) => {
        setError(e)
        setAt(at)
      })
      // On to the next that has not been looked at, in walking order; else to the end.
      const next = all.findIndex((x, i) => i > at && !marks.has(x.item.id))
      const earlier = all.findIndex((x) => x.item.id !== here.item.id && !marks.has(x.item.id))
      setAt(next >= 0 ? next : earlier >= 0 ? earlier : at)
    },
    [shift, here, at, all, marks],
  )

  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (typing(e) || e.ctrlKey || e.metaKey || e.altKey || defect || !started) return
      if (e.key.toLowerCase() === 'b') setAt((i) => Math.max(0, i - 1))
      if (e.key.toLowerCase() === 'd') setDefect(true)
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [defect, started])

  const finish = async () => {
    setError(null)
    try {
      const s = await outbox.send<Shift>(`/shifts/${shift.id}/walk-finish`, {})
      queryClient.setQueryData(['shift', shift.id], s)
      navigate(`/shifts/${shift.id}/site`)
    } catch (e) {
      setError(e)
    }
  }

  if (!started) {
    return (
      <>
        <Title below={`${all.length} items in ${machine.walkround.zones.length} zones`}>{`Walk round ${machine.name}`}</Title>
        <ol className="grid max-w-2xl gap-3 text-lg">
          {machine.walkround.before.map((b) => (
            <li key={b} className="border-l-4 border-accent pl-4">
              {b}
            </li>
          ))}
        </ol>
        <div className="mt-5 max-w-2xl">
          <ZonePlan machine={machine} marks={marks} here={null} onZone={() => setStarted(true)} />
        </div>
        <ActionBar>
          <Button look="next" onClick={() => setStarted(true)}>
            Isolated and tagged, begin
          </Button>
        </ActionBar>
      </>
    )
  }
  return (
    <>
      <Title
        below={`${marks.size} of ${all.length} looked at${waiting.length > 0 ? `, ${waiting.length} still on their way to the records` : ''}`}
      >{`Walk round ${machine.name}`}</Title>
      <div className="grid items-start gap-5 md:grid-cols-[minmax(0,1fr)_minmax(0,1.25fr)]">
        <div className="max-md:order-2">
          <ZonePlan
            machine={machine}
            marks={marks}
            here={here.zone.id}
            onZone={(zone) => setAt(all.findIndex((x) => x.zone.id === zone))}
          />
          <ZoneList
            zone={here.zone}
            marks={marks}
            here={here.item.id}
            onItem={(item) => setAt(all.findIndex((x) => x.item.id === item))}
          />
        </div>
        <div className="grid gap-4">
          <ItemCard
            key={here.item.id}
            zone={here.zone}
            item={here.item}
            mark={marks.get(here.item.id)}
            zoneNumber={machine.walkround.zones.indexOf(here.zone) + 1}
            onMark={mark}
            onDefect={() => setDefect(true)}
            onBack={at > 0 ? () => setAt(at - 1) : null}
          />
          <Refused error={error} />
        </div>
      </div>
      {complete && (
        <ActionBar why={shift.walk.finishedAt ? 'This walk-round is finished.' : 'Everything has been looked at.'}>
          <Button look="next" onClick={() => (shift.walk.finishedAt ? navigate(`/shifts/${shift.id}/site`) : void finish())}>
            {shift.walk.finishedAt ? 'On to the site' : 'Finish the walk-round'}
          </Button>
        </ActionBar>
      )}
      <Dialog open={defect} onClose={() => setDefect(false)} title={`Defect: ${here.item.label}`}>
        <DefectForm
          machine={machine.id}
          shift={shift.id}
          item={here.item.id}
          where={`${here.zone.label} · ${here.item.label}`}
          onRaised={() => {
            setDefect(false)
            mark('defect', null)
          }}
        />
      </Dialog>
    </>
  )
}
