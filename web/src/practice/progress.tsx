import type { SkillLine } from '@geolabe/contract'
import { type Progress, progressOf } from '@geolabe/core'
import { usePracticeProgress } from '../api/queries'
import { t } from '../language/t'
import { Loaded, Sheet, Title } from '../look/page'
import { NothingYet } from './on-machine'
import { catchesWords, gameWords } from './words'

/** What a line is of, and whether more of it is better. */
function about(s: SkillLine): { what: string; more: boolean; figure: (x: number) => string; fine: (x: number) => string } {
  const seconds = (x: number) => t`${x.toFixed(2)} s`
  switch (s.measure) {
    case 'score':
      return { what: t`${gameWords[s.game]}, points`, more: true, figure: (x) => x.toFixed(0), fine: (x) => x.toFixed(1) }
    case 'answer_s':
      return { what: t`hand signals, half of the answers within`, more: false, figure: seconds, fine: seconds }
    case 'off_s':
      return {
        what: catchesWords(s),
        more: false,
        figure: seconds,
        fine: seconds,
      }
  }
}

/** Where it goes, as far as so few attempts can say. */
function trendWords({ slope }: Progress, more: boolean, fine: (x: number) => string): string {
  if (!slope) return t`too few to say where it goes`
  if (Math.abs(slope.each) <= slope.within) return t`goes neither way that could be told`
  const by = fine(Math.abs(slope.each))
  return slope.each > 0 === more ? t`better by about ${by} each time` : t`worse by about ${by} each time`
}

/** The attempts one after the other, each a dot; the middle half behind them. */
function Dots({ values, p }: { values: readonly number[]; p: Progress }) {
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const y = (v: number) => (most === least ? 16 : 28 - (24 * (v - least)) / (most - least))
  return (
    <svg viewBox="0 0 188 32" className="h-10 w-48 shrink-0" aria-hidden="true">
      <rect x="0" width="188" y={y(p.high) - 1} height={Math.max(2, y(p.low) - y(p.high) + 2)} fill="var(--sunk)" />
      {values.map((v, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: attempts have no name but their place
          key={i}
          cx={6 + i * 6}
          cy={y(v)}
          r={i === values.length - 1 ? 3.4 : 2.2}
          fill={i === values.length - 1 ? 'var(--accent)' : 'var(--ink)'}
          stroke="var(--ink)"
        />
      ))}
    </svg>
  )
}

/** One line a skill: the last attempts, their middle, where it goes. */
export function PracticeProgress() {
  const progress = usePracticeProgress()
  return (
    <>
      <Title below={t`Practice, the last thirty attempts of each. Nobody but you sees it.`}>{t`How it goes`}</Title>
      <Loaded query={progress}>
        {({ skills }) => (
          <div className="grid gap-4 pb-6">
            {skills.length === 0 && <NothingYet>{t`Nothing has been practised yet.`}</NothingYet>}
            {[...new Set(skills.map((s) => s.machine))].map((machine) => (
              <Sheet key={machine} title={skills.find((s) => s.machine === machine)?.machineName ?? machine}>
                <ul className="grid gap-2">
                  {skills
                    .filter((s) => s.machine === machine)
                    .map((s) => {
                      const { what, more, figure, fine } = about(s)
                      const p = progressOf(s.values)
                      return (
                        p && (
                          <li
                            key={`${s.game} ${s.measure} ${s.plane} ${s.inward}`}
                            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line pt-2 first:border-t-0 first:pt-0"
                          >
                            <span className="w-24 text-[1.7rem] leading-none font-bold tabular-nums">{figure(p.median)}</span>
                            <span className="min-w-52 grow">
                              <strong className="block">{what}</strong>
                              <span className="text-quiet">
                                {t`half of ${p.count} from ${figure(p.low)} to ${figure(p.high)}`}; {trendWords(p, more, fine)}
                              </span>
                            </span>
                            <Dots values={s.values} p={p} />
                          </li>
                        )
                      )
                    })}
                </ul>
              </Sheet>
            ))}
          </div>
        )}
      </Loaded>
    </>
  )
}
