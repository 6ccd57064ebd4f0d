import type { OrderChange } from '@geolabe/core'
import { t } from '../language/t'
import { changeWords, fieldWords, valueWords, whatWords } from './words'

/** What a second person reads, what is taken out first. */
export function Changes({ changes }: { changes: readonly OrderChange[] }) {
  return (
    <ul className="grid gap-2" aria-label={t`What changes`}>
      {changes.map((c) => (
        <li
          key={`${c.what} ${c.part} ${c.path} ${c.name}`}
          className={c.what === 'gone' ? 'border-l-4 border-outside pl-3' : 'border-l-4 border-edge pl-3'}
        >
          <span className="font-semibold">{whatWords[c.what]}:</span> {changeWords(c)}
          {c.fields.map((f) => (
            <span key={f.field} className="block text-[0.95rem]">
              <span className="text-quiet">{fieldWords(f.field)}:</span> {valueWords(f.was)} → {valueWords(f.is)}
            </span>
          ))}
        </li>
      ))}
    </ul>
  )
}
