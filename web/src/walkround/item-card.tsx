import type { WalkResult } from '@geolabe/contract'
import { type Judgement, judge, Refusal, type WalkItem, type Zone } from '@geolabe/core'
import { Check, CircleSlash2, TriangleAlert } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { typing } from '../help/help'
import type { ShownMark } from './marks'

const resultWords: Record<WalkResult, string> = { 'in-order': 'In order', defect: 'Defect', 'not-fitted': 'Not fitted' }

interface Judged {
  reading: number | null
  judgement: Judgement | null
  wrong: string | null
}

function read(item: WalkItem, text: string): Judged {
  const plain = text.trim().replace(',', '.')
  if (!item.measure || plain === '') return { reading: null, judgement: null, wrong: null }
  const reading = Number(plain)
  try {
    if (!/^\d+(\.\d+)?$/.test(plain)) throw new Refusal('no-number', 'Not a figure.')
    return { reading, judgement: judge(item.measure, reading), wrong: null }
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return { reading: null, judgement: null, wrong: e.message }
  }
}

const percent = (v: number) => `${(v * 100).toFixed(1)} %`

function judgedWords(item: WalkItem, j: Judgement): string {
  const m = item.measure
  if (!m) return ''
  if (m.kind === 'range') {
    const band = `${m.least}–${m.most} ${m.unit}`
    return j.verdict === 'ok'
      ? `In order: inside ${band}.`
      : j.verdict === 'watch'
        ? `In order, but close to the end of ${band}. Watch it.`
        : `Outside ${band}: a defect.`
  }
  const change = m.kind === 'loss' ? 'thinner' : 'wider'
  return j.verdict === 'ok'
    ? `In order: ${percent(j.value)} ${change}, limit ${percent(j.limit)}.`
    : j.verdict === 'watch'
      ? `In order, but ${percent(j.value)} ${change} of a limit of ${percent(j.limit)}. Watch it.`
      : `${percent(j.value)} ${change}, limit ${percent(j.limit)}: a defect.`
}

interface Props {
  zone: Zone
  zoneNumber: number
  item: WalkItem
  mark: ShownMark | undefined
  onMark: (result: WalkResult, reading: number | null) => void
  onDefect: () => void
  onBack: (() => void) | null
}

/** One item, large: what to look for, the reading if there is one, and the three answers under the thumb. */
export function ItemCard({ zone, zoneNumber, item, mark, onMark, onDefect, onBack }: Props) {
  const [text, setText] = useState(mark?.reading == null ? '' : String(mark.reading))
  const field = useRef<HTMLInputElement>(null)
  const { reading, judgement, wrong } = read(item, text)
  const discards = judgement?.verdict === 'discard'
  const ready = !item.measure || (reading !== null && !discards)
  const firstOfZone = zone.items[0]?.id === item.id

  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || document.querySelector('[role="dialog"]')) return
      const key = e.key.toLowerCase()
      if (e.key === 'Enter' && e.target === field.current && ready) onMark('in-order', reading)
      if (typing(e)) return
      if (key === 'm' && item.measure) {
        e.preventDefault()
        field.current?.focus()
      }
      if (key === 'o' && ready) onMark('in-order', reading)
      else if (key === 'o') field.current?.focus()
      if (key === 'n' && item.mayBeMissing) onMark('not-fitted', null)
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [item, ready, reading, onMark])

  const answer = 'flex min-h-[4.5rem] items-center justify-center gap-2 rounded-xl border-2 px-3 text-lg font-bold'
  return (
    <article aria-live="polite" className="rounded-2xl border-2 border-ink bg-sheet">
      <div className="border-b border-line px-5 py-3">
        <p className="font-semibold">
          <span className="figure mr-2 rounded bg-ink px-2 py-0.5 text-paper">{zoneNumber}</span>
          {zone.label}
        </p>
        {firstOfZone &&
          zone.before?.map((b) => (
            <p key={b} className="mt-2 border-l-4 border-accent pl-3 font-semibold">
              {b}
            </p>
          ))}
      </div>
      <div className="px-5 pt-4 pb-5">
        <h2 className="text-[1.65rem] leading-tight">{item.label}</h2>
        <p className="mt-2 text-lg">{item.look}</p>
        {(item.where || item.cover) && (
          <p className="mt-1 text-quiet">
            {item.where}
            {item.cover && `${item.where ? ' · ' : ''}open: ${item.cover.toLowerCase()}, and shut it again`}
          </p>
        )}
        {item.why && <p className="mt-2 text-[0.95rem] text-quiet italic">{item.why}</p>}
        {item.measure && (
          <div className="mt-4">
            <label htmlFor={`reading-${item.id}`} className="font-semibold">
              {item.measure.label}
            </label>
            <div className="mt-1 flex items-center gap-3">
              <input
                id={`reading-${item.id}`}
                ref={field}
                inputMode="decimal"
                autoComplete="off"
                className="field figure max-w-44 text-2xl"
                value={text}
                onChange={(e) => setText(e.target.value)}
                aria-describedby={`judged-${item.id}`}
                aria-invalid={Boolean(wrong)}
              />
              <span className="text-lg text-quiet">{item.measure.unit}</span>
            </div>
            <p
              id={`judged-${item.id}`}
              aria-live="polite"
              className={
                wrong || discards
                  ? 'mt-2 font-bold text-outside'
                  : judgement?.verdict === 'watch'
                    ? 'mt-2 font-bold text-near'
                    : 'mt-2 text-quiet'
              }
            >
              {wrong ??
                (judgement
                  ? judgedWords(item, judgement)
                  : `${item.measure.kind === 'range' ? `${item.measure.least}–${item.measure.most} ${item.measure.unit}` : `New: ${item.measure.nominal} ${item.measure.unit}`} · ${item.measure.source}`)}
            </p>
          </div>
        )}
        <div className="mt-5 grid grid-cols-2 gap-2.5">
          <button
            type="button"
            disabled={!ready}
            onClick={() => onMark('in-order', reading)}
            className={`${answer} col-span-2 border-ink bg-accent text-on-accent disabled:border-edge disabled:bg-sunk disabled:text-quiet`}
          >
            <Check aria-hidden="true" /> In order
          </button>
          <button
            type="button"
            onClick={onDefect}
            className={`${answer} border-outside text-outside ${item.mayBeMissing ? '' : 'col-span-2'}`}
          >
            <TriangleAlert aria-hidden="true" /> Defect
          </button>
          {item.mayBeMissing && (
            <button type="button" onClick={() => onMark('not-fitted', null)} className={`${answer} border-edge`}>
              <CircleSlash2 aria-hidden="true" /> Not fitted
            </button>
          )}
        </div>
        <div className="mt-3 flex min-h-12 items-center justify-between gap-3">
          {onBack ? (
            <button type="button" onClick={onBack} className="min-h-12 font-semibold underline underline-offset-4">
              Back one item
            </button>
          ) : (
            <span />
          )}
          {mark && (
            <p className="text-quiet">
              {resultWords[mark.result]}
              {mark.saved ? ', saved' : ', kept on this device'}
            </p>
          )}
        </div>
      </div>
    </article>
  )
}
