import { isDrawn, preUseOf } from '@geolabe/core'
import { useParams } from 'react-router'
import { get } from '../api/client'
import { useShift } from '../api/queries'
import { t } from '../language/t'
import { verdictWords } from '../language/words'
import { Button } from '../look/button'
import { Loaded, Sheet, Title } from '../look/page'
import { VerdictMark } from '../look/verdict'
import { clock, when } from '../look/when'
import { useSay } from '../units/units'

/** A shift as it stands in the records; to be printed and to be taken elsewhere. */
export function ShiftRecord() {
  const { id = '' } = useParams()
  const query = useShift(id)
  const say = useSay()
  const save = async (name: string) => {
    const file = await get<object>(`/shifts/${id}/export`)
    const url = URL.createObjectURL(new Blob([JSON.stringify(file, null, 1)], { type: 'application/json' }))
    const a = document.createElement('a')
    a.href = url
    a.download = name
    a.click()
    URL.revokeObjectURL(url)
  }
  return (
    <Loaded query={query}>
      {(s) => (
        <>
          <Title
            below={t`${s.operator.name} at ${s.place.name}, ${when(s.openedAt)}${s.closedAt ? t` to ${clock(s.closedAt)}` : t`, still open`}`}
          >{t`${s.machine.name}, one shift`}</Title>
          <div className="mb-5 flex flex-wrap gap-3">
            <a
              className="flex min-h-14 items-center rounded-lg border-2 border-ink bg-accent px-6 text-lg font-bold text-on-accent"
              href={`/api/shifts/${s.id}/card.pdf`}
              target="_blank"
              rel="noreferrer"
            >{t`Lift card to print`}</a>
            <Button
              onClick={() => void save(`geolabe-shift-${s.machine.id}-${s.openedAt.slice(0, 10)}.json`)}
            >{t`Export as a file`}</Button>
          </div>
          <div className="grid items-start gap-4 pb-8 md:grid-cols-2">
            <Sheet title={t`Lifts`}>
              {s.lifts.length === 0 && <p>{t`No lift was proved.`}</p>}
              <ul className="grid gap-3">
                {s.lifts.map((l) => (
                  <li key={l.id} className="flex gap-3">
                    <VerdictMark verdict={l.assessment.verdict} />
                    <div>
                      <p className="font-bold">{l.plan.hung.load.name || t`Load`}</p>
                      <p>{t`${verdictWords[l.assessment.verdict].long}: ${l.assessment.hookLoad_kg === null ? t`mass not known` : say('mass', l.assessment.hookLoad_kg)} of ${l.assessment.rated_kg === null ? t`no rating` : say('mass', l.assessment.rated_kg)}`}</p>
                      <p className="text-quiet">
                        {l.outcome
                          ? `${l.outcome.outcome === 'done' ? t`Done` : t`Abandoned`} ${clock(l.outcome.at)}. ${l.outcome.reason}`
                          : t`Not recorded how it ended.`}
                      </p>
                      {isDrawn(l.plan) && (
                        <p className="flex flex-wrap items-center gap-x-4">
                          {t`Plan, true to scale:`}
                          {(['pdf', 'dxf', 'svg'] as const).map((format) => (
                            <a
                              key={format}
                              className="inline-flex min-h-12 items-center font-semibold uppercase underline underline-offset-4"
                              href={`/api/shifts/${s.id}/lifts/${l.id}/plan.${format}`}
                              download
                            >
                              {format}
                            </a>
                          ))}
                        </p>
                      )}
                    </div>
                  </li>
                ))}
              </ul>
            </Sheet>
            <Sheet title={t`Handed over`}>
              {s.handover ? (
                <>
                  <p className="text-lg">“{s.handover.words || t`No words left.`}”</p>
                  <p className="mt-2 text-quiet">{t`${s.handover.hours ?? '–'} h · fuel ${s.handover.fuel_share === null ? '–' : say('share', s.handover.fuel_share)}${s.handover.standsAt && ` · ${s.handover.standsAt}`}`}</p>
                </>
              ) : (
                <p>{t`Not handed over yet.`}</p>
              )}
            </Sheet>
            <Sheet title={t`Walk-round`}>
              <p>
                {t`${preUseOf(s).entries.length} items, ${preUseOf(s).entries.filter((m) => m.result === 'defect').length} with a defect`}
                <FinishedAt at={preUseOf(s).finishedAt} />.
              </p>
            </Sheet>
            <Sheet title={t`Site`}>
              {s.site ? (
                <p>{t`${s.site.fit ? t`Fit for the job` : t`Not fit for the job`}, looked at by ${s.site.team.join(', ')}; ${s.site.controls.length + s.site.more.length} hazards, each with its control.`}</p>
              ) : (
                <p>{t`Not looked at.`}</p>
              )}
            </Sheet>
          </div>
        </>
      )}
    </Loaded>
  )
}

const FinishedAt = ({ at }: { at: string | null }) => (at ? t`, finished ${clock(at)}` : t`, not finished`)
