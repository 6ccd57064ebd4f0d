import type { InspectionReport, InspectionSummary } from '@geolabe/contract'
import { Link } from 'react-router'
import { useMe } from '../api/me'
import { moreOf, useInspectionReport, useInspections } from '../api/queries'
import { t } from '../language/t'
import { occasionWords } from '../language/words'
import { LongList } from '../look/long-list'
import { Loaded, Sheet } from '../look/page'
import { when } from '../look/when'

const out = 'flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold'

/** Rounds as they were walked; for the person in charge also how complete they are and what is worth a question. */
export function Rounds() {
  const list = useInspections()
  const inCharge = Boolean(useMe().data?.roles.includes('person-in-charge'))
  const report = useInspectionReport(inCharge)
  return (
    <>
      {inCharge && report.data && <Report report={report.data} />}
      <div className="mb-3 flex flex-wrap gap-2">
        <a className={out} href="/api/exports/inspections.csv" download>{t`Every answer as CSV`}</a>
        <a className={out} href="/api/exports/defects.csv" download>{t`Defects as CSV`}</a>
        <a className={out} href="/api/exports/defects.json" download>{t`Defects as JSON`}</a>
      </div>
      <Loaded query={list}>
        {(data) => (
          <LongList
            label={t`Rounds, the latest first`}
            items={data.pages.flatMap((p) => p.inspections)}
            keyOf={(i) => i.id}
            row={(i) => <RoundRow round={i} />}
            estimate_px={76}
            more={moreOf(list)}
          />
        )}
      </Loaded>
    </>
  )
}

const lasted = (s: number) => (s < 90 ? `${Math.round(s)} s` : t`${Math.round(s / 60)} min`)

function RoundRow({ round: r }: { round: InspectionSummary }) {
  return (
    <Link
      to={`/records/${r.shift}`}
      className="grid gap-x-4 rounded-xl border border-line bg-sheet px-4 py-3 hover:bg-sunk sm:grid-cols-[8rem_1fr_auto]"
    >
      <strong className="text-lg">{r.machine.name}</strong>
      <span>
        {r.by.name}, {occasionWords[r.occasion].toLowerCase()}
        <span className="block text-quiet">{when(r.openedAt)}</span>
      </span>
      <span className="figure self-center text-right">
        {r.finishedAt ? t`${r.items ?? '–'} items` : t`not finished`}
        {r.duration_s !== null && <span className="block text-quiet">{lasted(r.duration_s)}</span>}
        {(r.defects ?? 0) > 0 && <span className="block font-semibold text-outside">{t`${r.defects} with a defect`}</span>}
      </span>
    </Link>
  )
}

function Report({ report }: { report: InspectionReport }) {
  const most = Math.max(1, ...report.weeks.map((w) => w.shifts))
  return (
    <div className="mb-5 grid items-start gap-4 lg:grid-cols-2">
      <Sheet title={t`Finished before the shift, by week`}>
        {report.weeks.length === 0 ? (
          <p>{t`No shift in twelve weeks.`}</p>
        ) : (
          <ol className="grid gap-1.5">
            {report.weeks.map((w) => (
              <li key={w.week} className="grid grid-cols-[7rem_1fr_5rem] items-center gap-3">
                <span className="figure text-quiet">{w.week}</span>
                <span
                  className="flex h-5 overflow-hidden rounded border border-ink"
                  style={{ width: `${(w.shifts / most) * 100}%` }}
                >
                  <span className="bg-ink" style={{ width: `${(w.finished / w.shifts) * 100}%` }} />
                  <span className="grow hatch-outside" />
                </span>
                <span className="figure">{t`${w.finished} of ${w.shifts}`}</span>
              </li>
            ))}
          </ol>
        )}
      </Sheet>
      <Sheet title={t`Worth a question`}>
        {report.patterns.length === 0 ? (
          <p>{t`Nothing in the record stands out.`}</p>
        ) : (
          <>
            <ul className="grid gap-2">
              {report.patterns.map((p) => (
                <li key={`${p.kind} ${p.machine.id} ${p.by.id}`} className="border-l-4 border-near pl-3">
                  <strong>
                    {p.machine.name}, {p.by.name}
                  </strong>
                  : {p.fact}
                </li>
              ))}
            </ul>
            <p className="mt-3 text-quiet">{t`What the record shows, not why. A quick walker, a small machine and a good machine look alike: ask, and look at the machine.`}</p>
          </>
        )}
      </Sheet>
    </div>
  )
}
