import type { Defect, RaiseDefectRequest } from '@geolabe/contract'
import { type EmergencyCard, itemsOf, preUseOf, type SymptomPath, shareOfRating, symptomsOf, unknown } from '@geolabe/core'
import { DoorOpen, EyeOff, OctagonAlert } from 'lucide-react'
import { lazy, Suspense, useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'
import { queryClient } from '../api/me'
import { openInspection } from '../api/open-inspection'
import { outbox } from '../api/outbox'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { Refused } from '../look/page'
import type { ShiftContext } from '../order/context'
import { Card, Emergency, StopPressed } from '../order/emergency'
import { UseOverride } from '../order/override'
import { useOrderOf } from '../order/use-order'
import { SymptomWay } from './symptom'

const DefectForm = lazy(() => import('../defects/defect-form').then((m) => ({ default: m.DefectForm })))

type Open = 'ask' | 'defect' | 'override' | { symptom: string } | { card: EmergencyCard } | null

/** The shortest way from a symptom that has no other. */
const putRight = (symptom: string): SymptomPath => ({
  id: 'put-right',
  symptom,
  nodes: [
    {
      id: 'found',
      ask: t`Is its cause found and put right?`,
      answers: [
        { label: t`Yes`, to: 'go' },
        { label: t`No`, to: 'stop' },
      ],
    },
    { id: 'go', end: 'continue', words: t`Go on from the trial lift.`, cause: t`Found and put right`, loses: ['load'] },
    { id: 'stop', end: 'stop', words: t`Land it and stop.`, loses: ['load'] },
  ],
})

/** Beside every station: something has gone wrong, or somebody leaves the machine. An impact is two touches. */
export function Incident({ shift, file, place }: ShiftContext) {
  const order = useOrderOf({ shift, file, place })
  const [open, setOpen] = useState<Open>(null)
  const [answers, setAnswers] = useState<Readonly<Record<string, readonly string[]>>>({})
  const [error, setError] = useState<unknown>(null)
  const navigate = useNavigate()
  const m = file.definition
  const close = () => setOpen(null)
  const ways = symptomsOf(m)
  const inQuestion = order.world.symptom?.symptom
  // One that this machine's papers do not have any more still comes to an end.
  const followed = inQuestion === undefined || ways.some((s) => s.symptom === inQuestion) ? ways : [...ways, putRight(inQuestion)]
  const following = followed.find((s) => s.symptom === inQuestion)
  const lift = shift.lifts.at(-1)
  const done = () => {
    close()
    for (const key of ['machine', 'yard', 'defects']) void queryClient.invalidateQueries({ queryKey: [key] })
  }
  const absence = itemsOf(m.walkround, 'after-absence').length > 0
  const under = shift.inspections.find((i) => i.occasion === 'after-absence' && !i.finishedAt)

  const stop = async (where: string, words: string) => {
    setError(null)
    const body: RaiseDefectRequest = { id: newId(), machine: m.id, shift: shift.id, item: null, where, words, grade: 'damage' }
    try {
      const sent = outbox.sendPatiently<Defect>('raise-defect', {}, body)
      close()
      await sent
      for (const key of ['machine', 'yard', 'defects']) void queryClient.invalidateQueries({ queryKey: [key] })
    } catch (e) {
      setError(e)
    }
  }
  const away = async () => {
    setError(null)
    try {
      navigate(`/shifts/${shift.id}/inspections/${await openInspection(shift, 'after-absence')}`)
    } catch (e) {
      setError(e)
    }
  }
  // Somebody who was looked for is out of sight, or does not answer: it stops, and they are looked for anew.
  const seen = order.file.states.some((s) => s.lost.includes('sight') && (order.world.states[s.id]?.value ?? unknown) !== unknown)
  const small = 'inline-flex min-h-12 items-center gap-2 rounded-lg border-2 px-3 font-semibold'
  return (
    <>
      <div className="flex shrink-0 items-center justify-end gap-2">
        {absence && preUseOf(shift).finishedAt && (
          <button type="button" className={`${small} border-edge`} onClick={() => void away()}>
            <DoorOpen size={20} aria-hidden="true" />
            <span className="max-xl:sr-only">{under ? t`Go on with the walk-round` : t`I left the machine`}</span>
          </button>
        )}
        {seen && (
          <button
            type="button"
            className={`${small} border-edge`}
            onClick={() => void order.tell([{ do: 'lost', why: 'sight' }])}
          >
            <EyeOff size={20} aria-hidden="true" /> <span className="max-xl:sr-only">{t`Contact lost`}</span>
          </button>
        )}
        {order.world.override && (
          <button type="button" className={`${small} border-near text-near`} onClick={() => setOpen('override')}>
            {t`Override held`}
          </button>
        )}
        {following && (
          <button type="button" className={`${small} border-near text-near`} onClick={() => setOpen({ symptom: following.id })}>
            {t`Symptom open`}
          </button>
        )}
        <button type="button" className={`${small} border-outside text-outside`} onClick={() => setOpen('ask')}>
          <OctagonAlert size={20} aria-hidden="true" /> <span className="max-xl:sr-only">{t`Emergency, stop, incident`}</span>
        </button>
      </div>
      <Dialog open={error !== null} onClose={() => setError(null)} title={t`Not done`}>
        <Refused error={error} />
      </Dialog>
      <Dialog open={open === 'ask'} onClose={close} title={t`Something is wrong with ${m.name}`}>
        <div className="grid gap-3">
          <Emergency order={order} onCard={(card) => setOpen({ card })} />
          <StopPressed order={order} onDone={close} />
          <Button
            look="stop"
            className="min-h-16 justify-center text-lg"
            onClick={() => void stop(t`In work`, t`Knock or impact in work; to be examined before it is used again`)}
          >{t`Knock or impact: stop ${m.name}`}</Button>
          <p className="text-quiet">{t`It is stopped at once, for everyone, until it has been examined. You can add words and a photo after.`}</p>
          {ways.length > 0 && (
            <>
              <h3 className="mt-2">{t`It does something it should not`}</h3>
              <div className="grid gap-2 sm:grid-cols-2">
                {ways.map((s) => (
                  <Button key={s.id} onClick={() => setOpen({ symptom: s.id })}>
                    {s.symptom}
                  </Button>
                ))}
              </div>
            </>
          )}
          <div className="mt-2 flex flex-wrap gap-2">
            <Button onClick={() => setOpen('defect')}>{t`Report a defect`}</Button>
            {order.file.overrides.length > 0 && <Button onClick={() => setOpen('override')}>{t`Use an override`}</Button>}
          </div>
        </div>
      </Dialog>
      <Dialog open={open === 'defect'} onClose={close} title={t`Report a defect: ${m.name}`}>
        <Suspense>
          <DefectForm
            machine={m.id}
            definition={m}
            shift={shift.id}
            item={null}
            where={null}
            near={null}
            onRaised={(id) => navigate(`/defects/${id}`)}
          />
        </Suspense>
      </Dialog>
      {typeof open === 'object' && open !== null && 'card' in open && (
        <Dialog open onClose={close} title={t`Emergency: ${told(open.card.label)}`}>
          <Card card={open.card} />
        </Dialog>
      )}
      <Dialog open={open === 'override'} onClose={close} title={t`Use an override`}>
        <UseOverride order={order} onDone={done} />
      </Dialog>
      {followed.map((s) => (
        <Dialog
          key={s.id}
          open={typeof open === 'object' && open !== null && 'symptom' in open && open.symptom === s.id}
          onClose={close}
          title={s.symptom}
        >
          <SymptomWay
            path={s}
            order={order}
            figures={{ share: lift && !lift.outcome ? shareOfRating(lift) : null }}
            answers={answers[s.id] ?? []}
            onAnswers={(a) => setAnswers({ ...answers, [s.id]: a })}
            onEnd={({ end, loses }) => {
              setAnswers({ ...answers, [s.id]: [] })
              void order.tell([{ do: 'symptom', symptom: s.symptom, answers: [...(answers[s.id] ?? [])], end, loses }])
            }}
            onStop={(words) => void stop(s.symptom, words)}
            onClose={close}
          />
        </Dialog>
      ))}
    </>
  )
}
