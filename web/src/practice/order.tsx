import {
  headOf,
  longest_ticks,
  type Machine,
  offerAt,
  type SequenceAct,
  type SequenceCourse,
  SequenceDrill,
  type SequenceRun,
  sequenceCourse,
  sequenceVersion,
  type TimedAct,
  tick_s,
} from '@geolabe/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { Station } from '../look/station'
import { useRunId } from './given'
import { Halted, NotOffered, OnMachine } from './on-machine'
import { OrderAfter } from './order-after'
import { type Act, Called, Came, FollowingKeys, HandedOver, SomethingWrong, StepKeys } from './order-parts'
import { cueWords } from './order-words'
import { type How, orRefused, useRounds } from './use-rounds'

/** A part of the machine's own order of work, while things go wrong in it. */
export const OrderOn = () => (
  <OnMachine game="sequence">
    {(f, level) => (
      <Rounds key={`${f.definition.revision} ${f.orderRevision}`} machine={f.definition} order={f.orderRevision} level={level} />
    )}
  </OnMachine>
)

function Rounds({ machine, order, level }: { machine: Machine; order: number; level: number }) {
  const { how, turn, run, over, again, next, leave } = useRounds<SequenceRun>(level)
  const made = useMemo(() => orRefused(() => ({ course: sequenceCourse(machine, how.seed, how.level) })), [machine, how])
  const onLeave = () => leave()
  if ('refused' in made) return <NotOffered title={t`Order of work of ${machine.name}`} error={made.refused} onLeave={onLeave} />
  if (run) return <OrderAfter machine={machine} course={made.course} run={run} onAgain={again} onNext={next} onLeave={onLeave} />
  return <Keeping key={turn} machine={machine} order={order} course={made.course} how={how} onOver={over} onLeave={onLeave} />
}

/** How long somebody has been at it; while the page is hidden time stands still. */
function useTicks(): { begin: () => void; now: () => number } {
  const [since, gone] = [useRef<number | null>(null), useRef<number | null>(null)]
  useEffect(() => {
    const turn = () => {
      if (since.current === null) return
      if (document.hidden) gone.current = performance.now()
      else if (gone.current !== null) {
        since.current += performance.now() - gone.current
        gone.current = null
      }
    }
    document.addEventListener('visibilitychange', turn)
    return () => document.removeEventListener('visibilitychange', turn)
  }, [since, gone])
  return {
    begin: () => {
      since.current = performance.now()
    },
    now: () => Math.min(longest_ticks, Math.floor((performance.now() - (since.current ?? performance.now())) / 1000 / tick_s)),
  }
}

const second_tap_ticks = Math.round(0.3 / tick_s)

function Keeping({
  machine,
  order,
  course,
  how,
  onOver,
  onLeave,
}: {
  machine: Machine
  order: number
  course: SequenceCourse
  how: How
  onOver: (run: SequenceRun) => void
  onLeave: () => void
}) {
  const runId = useRunId()
  const ticks = useTicks()
  const [ready, setReady] = useState(false)
  const [acts, setActs] = useState<readonly TimedAct[]>([])
  const [isWrong, setIsWrong] = useState(false)
  const [heard, setHeard] = useState(0)
  const drill = useMemo(() => {
    const d = new SequenceDrill(machine, course, how.seed)
    for (const a of acts) d.do(a)
    return d
  }, [machine, course, how, acts])
  const act: Act = (a: SequenceAct) => {
    // What is offered changes with each act: a second tap of the same finger is not for it.
    const now = ticks.now()
    if (now - (acts.at(-1)?.[0] ?? -second_tap_ticks) < second_tap_ticks) return
    setIsWrong(false)
    const all: TimedAct[] = [...acts, [now, a]]
    setActs(all)
    const d = new SequenceDrill(machine, course, how.seed)
    for (const x of all) d.do(x)
    if (!d.over) return
    scrollTo(0, 0)
    onOver({
      ...headOf(machine, how, runId()),
      game: 'sequence',
      version: sequenceVersion,
      order,
      acts: all,
    })
  }
  const looked = new Set(acts.flatMap(([, a]) => (a.do === 'look' ? [a.state] : [])))
  const title = t`Order of work of ${machine.name}`
  const what = t`Practice: ${told(course.procedure.label)}`
  if (!ready)
    return (
      <Station
        title={title}
        below={what}
        first="sheet"
        drawing={<HandedOver drill={drill} looked={looked} act={null} />}
        sheet={
          <Halted
            ready
            onGo={() => {
              ticks.begin()
              setReady(true)
            }}
            onLeave={onLeave}
          >
            <p className="text-lg font-bold">{t`Somebody hands it over to you, part of the way. Go on in order.`}</p>
            <ul className="mt-2 grid list-disc gap-1 pl-5">
              <li>{t`What you have been told may not be so. Look before you rest a step on it.`}</li>
              <li>{t`When something comes, meet it first. Where no key fits, stand still and call.`}</li>
            </ul>
          </Halted>
        }
      />
    )
  const cue = drill.active?.cue
  const steps = offerAt(course, drill.told, how.seed, drill.taken)
  return (
    <Station
      title={title}
      below={
        <>
          {what} <Button look="quiet" onClick={onLeave}>{t`Leave practice`}</Button>
        </>
      }
      first="sheet"
      head={
        <>
          {cue && (
            <p role="alert" className="rounded-lg border-3 border-outside px-3 py-2 text-lg font-bold">
              {cueWords(cue, course.file)}
            </p>
          )}
          {!isWrong && !cue && !drill.following && (
            <Called claims={drill.claims.slice(heard)} onHeard={() => setHeard(drill.claims.length)} />
          )}
        </>
      }
      drawing={<HandedOver drill={drill} looked={looked} act={act} />}
      sheet={
        <div className="grid content-start gap-3 overflow-y-auto roomy:h-full">
          {!isWrong && <Came drill={drill} />}
          {isWrong ? (
            <SomethingWrong drill={drill} act={act} />
          ) : drill.following ? (
            <FollowingKeys following={drill.following} finds={drill.finds} act={act} />
          ) : (
            <StepKeys steps={steps} isStuck={drill.isStuck && !cue} act={act} />
          )}
        </div>
      }
      actions={
        <div className="grid grid-cols-2 gap-3 sm:flex">
          <Button className="min-h-16" onClick={() => setIsWrong(!isWrong)} aria-expanded={isWrong}>
            {isWrong ? t`Back to the steps` : t`Something is wrong`}
          </Button>
          <Button look="stop" className="min-h-16" onClick={() => act({ do: 'call' })}>{t`Stand still and call`}</Button>
        </div>
      }
    />
  )
}
