import type { MachineFile } from '@geolabe/contract'
import {
  type Judgement,
  judge,
  limitsOf,
  type Measure,
  measureLabel,
  measureUnit,
  queryReading,
  Refusal,
  readingTrend,
  type WalkItem,
} from '@geolabe/core'
import { lazy, type RefObject, Suspense } from 'react'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { parsePlain, typedFault } from '../units/units'

/** The charts come once a part with earlier readings is looked at. */
const Trend = lazy(() => import('../instruments/trend').then((m) => ({ default: m.Trend })))

export type Because = 'measured-again' | 'replaced'

export interface Judged {
  reading: number | null
  judgement: Judgement | null
  /** Cannot be read, or belongs to no such part. */
  wrong: string | null
  /** Can be read, and is hard to believe beside the last. */
  query: string | null
}

export function readText(item: WalkItem, text: string, earlier: MachineFile['readings'][string] | undefined): Judged {
  const none = { reading: null, judgement: null, wrong: null, query: null }
  if (!item.measure || text.trim() === '') return none
  const fault = typedFault(text)
  if (fault) return { ...none, wrong: fault }
  const reading = parsePlain(text) as number
  try {
    return {
      reading,
      judgement: judge(item.measure, reading),
      wrong: null,
      query: queryReading(item.measure, reading, earlier?.at(-1)) ?? judge(item.measure, reading).query,
    }
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return { ...none, wrong: e.message }
  }
}

const round = (v: number) => Math.round(v * 100) / 100

function limitWords(m: Measure): string {
  const { least, most } = limitsOf(m)
  const unit = measureUnit(m)
  if (least !== null && most !== null) return t`${round(least)} to ${round(most)} ${unit}`
  if (least !== null) return t`not under ${round(least)} ${unit}`
  return most === null ? t`no limit on record` : t`not over ${round(most)} ${unit}`
}

export function judgedWords(m: Measure, j: Judgement): string {
  const limits = limitWords(m)
  if (j.verdict === 'discard') return t`Beyond its limit (${limits}): a defect.`
  return j.verdict === 'watch' ? t`In order, close to its limit: ${limits}. Watch it.` : t`In order: ${limits}.`
}

/** The reading of an item: judged as it is typed, beside the earlier ones and the day it is expected to reach its limit. */
export function Reading({
  item,
  text,
  onText,
  judged,
  earlier,
  because,
  onBecause,
  field,
}: {
  item: WalkItem & { measure: Measure }
  text: string
  onText: (t: string) => void
  judged: Judged
  earlier: MachineFile['readings'][string]
  because: Because | null
  onBecause: (b: Because) => void
  field: RefObject<HTMLInputElement | null>
}) {
  const m = item.measure
  const last = earlier.at(-1)
  const trend = readingTrend(m, earlier)
  const { judgement, wrong, query } = judged
  return (
    <div className="mt-4">
      <label htmlFor={`reading-${item.id}`} className="font-semibold">
        {measureLabel(m)}
      </label>
      <div className="mt-1 flex flex-wrap items-center gap-3">
        <input
          id={`reading-${item.id}`}
          ref={field}
          inputMode="decimal"
          autoComplete="off"
          className="field figure max-w-40 text-2xl"
          value={text}
          onChange={(e) => onText(e.target.value)}
          aria-describedby={`judged-${item.id}`}
          aria-invalid={Boolean(wrong)}
        />
        <span className="text-lg text-quiet">{measureUnit(m)}</span>
        {last && (
          <span className="text-quiet">{rich`last ${<span className="figure font-semibold text-ink">{last.value}</span>}`}</span>
        )}
      </div>
      <p
        id={`judged-${item.id}`}
        aria-live="polite"
        className={
          wrong || judgement?.verdict === 'discard'
            ? 'mt-2 font-bold text-outside'
            : judgement?.verdict === 'watch'
              ? 'mt-2 font-bold text-near'
              : 'mt-2 text-quiet'
        }
      >
        {wrong ?? (judgement ? `${judgedWords(m, judgement)} ` : t`Limit: ${limitWords(m)}. `)}
        {!wrong && <span className="font-normal text-quiet">{judgement?.source ?? m.source}</span>}
      </p>
      {query && !wrong && (
        <div className="mt-2 rounded-lg border-2 border-near p-3">
          <p className="mb-2 font-semibold">{query}</p>
          <Choice
            label={t`What is it`}
            hideLabel
            value={because}
            onChange={onBecause}
            options={[
              { value: 'measured-again', label: t`Measured again: it stands` },
              { value: 'replaced', label: t`Part was replaced` },
            ]}
          />
        </div>
      )}
      {earlier.length > 2 && (
        <figure className="mt-3">
          <Suspense fallback={<div className="h-24" />}>
            <Trend measure={m} readings={earlier} trend={trend} now={judged.reading} />
          </Suspense>
          <figcaption className="text-[0.92rem] text-quiet">
            {trend.reaches
              ? rich`At this rate at its limit about ${<strong className="figure text-ink">{trend.reaches}</strong>}${
                  trend.earliest &&
                  trend.latest &&
                  trend.earliest !== trend.latest &&
                  t`, between ${trend.earliest} and ${trend.latest}`
                }.`
              : (trend.why ?? t`Not going towards its limit.`)}
          </figcaption>
        </figure>
      )}
    </div>
  )
}
