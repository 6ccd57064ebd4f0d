import { type DriveRun, driveMarks, type Machine, type Point, picked_m, playDrive, type TruckDrive } from '@geolabe/core'
import { useMemo } from 'react'
import { t } from '../language/t'
import { Sheet } from '../look/page'
import { useSay } from '../units/units'
import { clockOf } from './clock'
import { NextSteps, NoLicence, Score, Told } from './score'
import { SeeAgain } from './see-again'
import { useSent } from './use-sent'
import { driveWords, edgeWords, markWords, ruleWords } from './words'

/** The whole course from above, with the way that was driven. */
function Driven({ drive }: { drive: TruckDrive }) {
  const { course, track, walkers } = drive
  const all = course.walls.flatMap((w) => w.points)
  const [xs, ys] = [all.map((p) => p.x_m), all.map((p) => p.y_m)]
  const [x0, x1, y0, y1] = [Math.min(...xs) - 1, Math.max(...xs) + 1, Math.min(...ys) - 1, Math.max(...ys) + 1]
  const fine = (x1 - x0 + y1 - y0) / 600
  const list = (points: readonly Point[]) => points.map((p) => `${(-p.y_m).toFixed(2)},${(-p.x_m).toFixed(2)}`).join(' ')
  return (
    <svg
      viewBox={`${-y1} ${-x1} ${y1 - y0} ${x1 - x0}`}
      className="max-h-96 w-full rounded-xl border border-line bg-sheet"
      role="img"
      aria-label={t`From above: the way that you drove`}
    >
      {course.walls.map((w) => (
        <polygon key={list(w.points)} points={list(w.points)} fill="var(--edge)" />
      ))}
      <circle
        cx={-course.bay.y_m}
        cy={-course.bay.x_m}
        r={course.bay.ring_m}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2 * fine}
      />
      {course.picks.map((p, i) => (
        <circle
          key={p.at_m}
          cx={-p.at.y_m}
          cy={-p.at.x_m}
          r={picked_m.along}
          fill={i < drive.picked ? 'var(--inside)' : 'none'}
          stroke="var(--ink)"
          strokeWidth={2 * fine}
        />
      ))}
      <polyline
        points={list(course.way)}
        fill="none"
        stroke="var(--edge)"
        strokeWidth={1.5 * fine}
        strokeDasharray={`${8 * fine}`}
      />
      <polyline points={list(track)} fill="none" stroke="var(--inside)" strokeWidth={4 * fine} />
      {walkers
        .filter((w) => w.walked_m !== null)
        .map((w) => (
          <circle key={w.crossing.at_m} cx={-w.at.y_m} cy={-w.at.x_m} r={5 * fine} fill="var(--outside)" />
        ))}
    </svg>
  )
}

/** What a drive came to: the sentence, each rule with how it was kept, the way driven. */
export function DriveAfter({
  machine,
  run,
  onAgain,
  onNext,
  onLeave,
}: {
  machine: Machine
  run: DriveRun
  onAgain: () => void
  onNext: (passed: boolean) => void
  onLeave: () => void
}) {
  const say = useSay()
  const drive = useMemo(() => playDrive(machine, run), [machine, run])
  const marks = useMemo(() => driveMarks(drive), [drive])
  const error = useSent(run, marks.score)
  const row = 'grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 tabular-nums'
  return (
    <>
      <Told of={t`Practice, driving ${machine.name}`} error={error}>
        {t`${driveWords(marks)}.`}
      </Told>
      <div className="grid items-start gap-4 pb-6 md:grid-cols-2">
        <Sheet>
          <Score score={marks.score} passed={marks.passed} />
          <ul className="mt-3 grid gap-1.5">
            {marks.rules.map(({ rule, mark }) => (
              <li key={rule} className={`border-l-4 pl-3 ${mark === 'kept' ? 'border-line' : 'border-outside'}`}>
                {ruleWords[rule]}: <strong>{markWords[mark]}</strong>
              </li>
            ))}
          </ul>
          <dl className={`mt-3 border-t border-line pt-3 ${row}`}>
            <dt>{t`Least room left, to ${edgeWords[marks.least.edge]}`}</dt>
            <dd className="text-right font-bold">{say('share', Math.max(0, marks.least.share))}</dd>
            <dt>{t`Off the middle of the ring`}</dt>
            <dd className="text-right font-bold">{marks.off_m === null ? t`not set down` : say('length', marks.off_m)}</dd>
            <dt>{t`Time; a steady driver takes ${clockOf(marks.steady_s)}`}</dt>
            <dd className="text-right font-bold">{clockOf(marks.time_s)}</dd>
          </dl>
          <p className="mt-3 text-[0.92rem] text-quiet">
            {t`Mast and tyres do not give here: on the machine there is less room.`}
          </p>
          <NoLicence />
        </Sheet>
        <Sheet title={t`The way you drove`}>
          <Driven drive={drive} />
          <SeeAgain machine={machine} run={run} moments={[]} />
        </Sheet>
      </div>
      <NextSteps next={t`Next`} onNext={() => onNext(marks.passed)} onAgain={onAgain} onLeave={onLeave} />
    </>
  )
}
