import type { Course, LoadRun, Machine } from '@geolabe/core'
import { placeOfRing, tick_s } from '@geolabe/core'
import { wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { queryClient } from '../api/me'
import { outbox } from '../api/outbox'
import { t } from '../language/t'
import { Refused, Sheet } from '../look/page'
import { useSay } from '../units/units'
import { clockOf } from './clock'
import type { Player, Replay } from './replay.worker'
import { NextSteps, NoLicence, Score, Told } from './score'
import { SeeAgain } from './see-again'
import type { Trace } from './trace'
import { afterWords, attemptWords, faultWords, legWords } from './words'

/** Plays the run again beside the screen, and sends it to be kept; once. */
function useReplay(machine: Machine, run: LoadRun): { replay: Replay | null; error: unknown } {
  const [replay, setReplay] = useState<Replay | null>(null)
  const [error, setError] = useState<unknown>(null)
  const sent = useRef('')
  useEffect(() => {
    const worker = new Worker(new URL('./replay.worker.ts', import.meta.url), { type: 'module' })
    let gone = false
    const play = async () => {
      try {
        const played = await wrap<Player>(worker).play(machine, run)
        // Whoever has gone on meanwhile has driven it all the same: it is kept.
        if (!gone) setReplay(played)
        // A page that is drawn anew plays it again, and sends nothing twice.
        if (sent.current === run.id) return
        sent.current = run.id
        await outbox.sendPatiently('practice-run', {}, { run, score: played.result.score })
        await queryClient.invalidateQueries({ queryKey: ['practice'] })
      } catch (e) {
        if (!gone) setError(e)
      } finally {
        worker.terminate()
      }
    }
    void play()
    return () => {
      gone = true
    }
  }, [machine, run])
  return { replay, error }
}

/** Two ways on the same deck: one's own, and the reference's beside it. */
function Ways({ course, own, reference }: { course: Course; own: Trace; reference: Trace }) {
  const all = [
    ...own.load,
    ...reference.load,
    ...course.legs.flatMap((r): [number, number][] => {
      const [x, y] = placeOfRing(r)
      return [
        [x - r.ring_m, y - r.ring_m],
        [x + r.ring_m, y + r.ring_m],
      ]
    }),
  ]
  const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])]
  const [x0, x1, y0, y1] = [Math.min(...xs) - 0.5, Math.max(...xs) + 0.5, Math.min(...ys) - 0.5, Math.max(...ys) + 0.5]
  const path = (points: readonly [number, number][]) => points.map(([x, y]) => `${(-y).toFixed(2)},${(-x).toFixed(2)}`).join(' ')
  const fine = (x1 - x0 + y1 - y0) / 600
  return (
    <svg
      viewBox={`${-y1} ${-x1} ${y1 - y0} ${x1 - x0}`}
      className="max-h-80 w-full rounded-xl border border-line bg-sheet"
      role="img"
      aria-label={t`From above: your load’s way, and the reference’s`}
    >
      {course.legs.map((r, i) => {
        const [x, y] = placeOfRing(r)
        return (
          <g key={`${x} ${y}`}>
            <circle cx={-y} cy={-x} r={r.ring_m} fill="none" stroke="var(--edge)" strokeWidth={2 * fine} />
            <text x={-y} y={-x + 6 * fine} textAnchor="middle" fontSize={16 * fine} fill="var(--quiet)">
              {i + 1}
            </text>
          </g>
        )
      })}
      <polyline
        points={path(reference.load)}
        fill="none"
        stroke="var(--edge)"
        strokeWidth={2 * fine}
        strokeDasharray={`${5 * fine} ${4 * fine}`}
      />
      <polyline points={path(own.load)} fill="none" stroke="var(--inside)" strokeWidth={2.5 * fine} />
    </svg>
  )
}

const whole = (x: number) => Math.round(x)

/** What the run came to: one sentence, the rings, the ways side by side, and the next thing to do. */
export function After({
  machine,
  course,
  run,
  onAgain,
  onNext,
  onLeave,
}: {
  machine: Machine
  course: Course
  run: LoadRun
  onAgain: () => void
  onNext: (passed: boolean) => void
  onLeave: () => void
}) {
  const say = useSay()
  const { replay, error } = useReplay(machine, run)
  if (error && !replay) return <Refused error={error} />
  if (!replay) return <div className="h-40 animate-pulse rounded-xl bg-sunk" role="status" aria-label={t`Playing it again`} />
  const { result } = replay
  const onTheWay = [
    ...result.attempts.map((a) => ({ tick: a.from, words: attemptWords(a) })),
    ...result.faults.map((f) => ({ tick: f.tick, words: faultWords(f, say) })),
  ].sort((a, b) => a.tick - b.tick)
  return (
    <>
      <Told of={t`Practice on ${machine.name}`} error={error}>
        {afterWords(result, say)}
      </Told>
      <div className="grid items-start gap-4 pb-6 md:grid-cols-2">
        <Sheet>
          <Score score={result.score} passed={result.passed} short={t`of 100, every ring reached`} />
          <ol className="mt-3 grid gap-2">
            {result.legs.map((l) => (
              <li key={l.ring} className="border-l-4 border-line pl-3">
                <strong>{t`Ring ${l.ring}: ${whole(l.score)}`}</strong> {legWords(l, say)}
                {l.landed && (
                  <span className="block text-[0.92rem] text-quiet">
                    {l.greatestSwing_m > 0 && t`Swing up to ${say('length', l.greatestSwing_m)}.`}{' '}
                    {l.greatestApart_m > 0 && t`Out of level up to ${say('length', l.greatestApart_m)}.`}{' '}
                    {t`${l.moves} moves, ${whole(l.takes_s)} s; the reference takes ${whole(replay.takes_s[l.ring - 1] ?? 0)} s.`}
                  </span>
                )}
              </li>
            ))}
          </ol>
          {onTheWay.length > 0 && (
            <>
              <h2 className="mt-4 mb-1">{t`On the way`}</h2>
              <ul className="grid gap-1">
                {onTheWay.map(({ tick, words }) => (
                  <li key={`${tick} ${words}`}>
                    <span className="text-quiet tabular-nums">{clockOf(tick * tick_s)}</span> {words}
                  </li>
                ))}
              </ul>
            </>
          )}
        </Sheet>
        <div>
          <Ways course={course} own={replay.own} reference={replay.reference} />
          <p className="mt-2 text-[0.92rem] text-quiet">{t`Your load’s way, whole; broken, the reference: the same course without leaving a swing.`}</p>
          <SeeAgain
            machine={machine}
            run={run}
            ghost={replay.reference}
            moments={onTheWay.map(({ tick, words }) => ({ at_s: tick * tick_s, words }))}
          />
          <NoLicence />
        </div>
      </div>
      <NextSteps next={t`Next`} onNext={() => onNext(result.passed)} onAgain={onAgain} onLeave={onLeave} />
    </>
  )
}
