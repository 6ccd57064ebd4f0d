import type { EntryResult, MachineFile } from '@geolabe/contract'
import type { PlateValue, WalkItem, Zone } from '@geolabe/core'
import { Check, CircleSlash2, TriangleAlert } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { typing } from '../help/keys'
import { t, told } from '../language/t'
import { walkPartWords } from '../language/words'
import type { NewEntry, ShownEntry } from './entries'
import { Plate } from './plate'
import { type Because, Reading, readText } from './reading'

const resultWords: Record<EntryResult, string> = { 'in-order': t`In order`, defect: t`Defect`, 'not-fitted': t`Not fitted` }

interface Props {
  file: MachineFile
  zone: Zone
  zoneNumber: number
  item: WalkItem
  entry: ShownEntry | undefined
  /** Why it is measured today; null: looked at only. */
  due: string | null
  onEntry: (entry: Pick<NewEntry, 'result' | 'reading' | 'because' | 'plate'>) => void
  onDefect: (reading: number | null) => void
  onBack: (() => void) | null
}

/** One item, large: what to look for, the reading if there is one, and the three answers under the thumb. */
export function ItemCard({ file, zone, zoneNumber, item, entry, due, onEntry, onDefect, onBack }: Props) {
  const [text, setText] = useState(entry?.reading == null ? '' : String(entry.reading))
  const [because, setBecause] = useState<Because | null>(entry?.because ?? null)
  const [plate, setPlate] = useState<Record<string, PlateValue>>({})
  const [anyway, setAnyway] = useState(entry?.reading != null)
  const field = useRef<HTMLInputElement>(null)
  const earlier = file.readings[item.id] ?? []
  const judged = readText(item, text, earlier)
  const { reading, judgement, query } = judged
  const discards = judgement?.verdict === 'discard'
  const plateOpen =
    item.plate && file.plate === null && file.definition.plateFields.some((f) => String(plate[f.id] ?? '').trim() === '')
  const measured = reading !== null && !discards && (!query || because !== null)
  const measuring = item.measure !== undefined && (due !== null || anyway)
  const ready = (!item.measure || measured || (due === null && text.trim() === '')) && !plateOpen
  const firstOfZone = zone.items[0]?.id === item.id
  const inOrder = () =>
    onEntry({
      result: 'in-order',
      reading,
      because: query ? because : null,
      ...(item.plate && file.plate === null && file.definition.plateFields.length > 0 ? { plate } : {}),
    })
  const notFitted = () => onEntry({ result: 'not-fitted', reading: null })

  // biome-ignore lint/correctness/useExhaustiveDependencies: the listener is renewed with everything it reads
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || document.querySelector('[role="dialog"]')) return
      const key = e.key.toLowerCase()
      if (e.key === 'Enter' && e.target === field.current && ready) inOrder()
      if (typing(e)) return
      if (key === 'm' && item.measure) {
        e.preventDefault()
        // At once: whoever types on loses no digit.
        flushSync(() => setAnyway(true))
        field.current?.focus()
      }
      if (key === 'o' && ready) inOrder()
      else if (key === 'o') field.current?.focus()
      if (key === 'd') onDefect(reading)
      if (key === 'n' && item.mayBeMissing) notFitted()
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [item, ready, reading, because, plate, onEntry, onDefect])

  const answer = 'flex min-h-12 items-center justify-center gap-2 rounded-xl border-2 px-3 text-lg font-bold'
  return (
    <article aria-live="polite" className="flex flex-col rounded-2xl border-2 border-ink bg-sheet roomy:h-full">
      <div className="shrink-0 border-b border-line px-4 py-1.5">
        <p className="flex flex-wrap items-center gap-x-2 font-semibold">
          <span className="figure rounded bg-ink px-2 py-0.5 text-paper">{zoneNumber}</span>
          {told(zone.label)}
          <span className="font-normal text-quiet">{walkPartWords[zone.part]}</span>
          {onBack && (
            <button
              type="button"
              onClick={onBack}
              className="ml-auto min-h-12 underline underline-offset-4"
            >{t`Back one item`}</button>
          )}
        </p>
        {firstOfZone &&
          zone.before?.map((b) => (
            <p key={b} className="my-1 border-l-4 border-accent pl-3 font-semibold">
              {b}
            </p>
          ))}
      </div>
      <div className="min-h-0 grow px-4 py-3 roomy:overflow-y-auto">
        <h2 className="text-[1.65rem] leading-tight">{told(item.label)}</h2>
        <p className="mt-2 text-lg">{item.look}</p>
        {(item.where || item.cover) && (
          <p className="mt-1 text-quiet">
            {item.where}
            {item.cover && t`${item.where ? ' · ' : ''}open: ${item.cover.toLowerCase()}, and shut it again`}
          </p>
        )}
        {item.why && <p className="mt-2 text-[0.95rem] text-quiet italic">{item.why}</p>}
        {(item.good || item.bad) && (
          <ul className="mt-3 grid gap-1 text-[0.98rem]">
            {item.good && (
              <li>
                <span className="font-semibold">{t`Good:`}</span> {item.good}
              </li>
            )}
            {item.bad && (
              <li>
                <span className="font-semibold text-outside">{t`Bad:`}</span> {item.bad}
              </li>
            )}
          </ul>
        )}
        {item.plate && (
          <Plate machine={file.definition} known={file.plate} expected={file.plateExpected} given={plate} onGiven={setPlate} />
        )}
        {item.measure && due && <p className="mt-4 border-l-4 border-accent pl-3 font-semibold">{t`Measure it today. ${due}`}</p>}
        {item.measure && !measuring && (
          <p className="mt-3 flex flex-wrap items-center gap-x-4 text-quiet">
            {t`Look at it; no reading is due today.`}
            <button
              type="button"
              onClick={() => setAnyway(true)}
              className="min-h-12 font-semibold text-ink underline underline-offset-4"
            >{t`Measure it anyway`}</button>
          </p>
        )}
        {item.measure && measuring && (
          <Reading
            item={{ ...item, measure: item.measure }}
            text={text}
            onText={setText}
            judged={judged}
            earlier={earlier}
            because={because}
            onBecause={setBecause}
            field={field}
          />
        )}
      </div>
      <div className="grid shrink-0 grid-cols-2 gap-2.5 rounded-b-2xl border-t border-line bg-sheet px-4 py-2.5 max-md:sticky max-md:bottom-0">
        {entry && (
          <p className="col-span-2 text-quiet">
            {resultWords[entry.result]}
            {entry.saved ? t`, saved` : t`, kept on this device`}
          </p>
        )}
        <button
          type="button"
          onClick={() => onDefect(reading)}
          className={`${answer} border-outside text-outside ${item.mayBeMissing ? '' : 'col-span-2'}`}
        >
          <TriangleAlert aria-hidden="true" /> {t`Defect`}
        </button>
        {item.mayBeMissing && (
          <button type="button" onClick={notFitted} className={`${answer} border-edge`}>
            <CircleSlash2 aria-hidden="true" /> {t`Not fitted`}
          </button>
        )}
        <button
          type="button"
          disabled={!ready}
          onClick={inOrder}
          className={`${answer} col-span-2 min-h-[4.5rem] border-ink bg-accent text-on-accent disabled:border-edge disabled:bg-sunk disabled:text-quiet`}
        >
          <Check aria-hidden="true" /> {item.shuts ? t`Shut and latched` : t`In order`}
        </button>
      </div>
    </article>
  )
}
