import type { HandoverNote } from '@geolabe/contract'
import clsx from 'clsx'
import { told } from '../language/t'

/** What the next person must know, made from the record; the grave ones carry a bar and come first. */
export function HandoverLines({ lines }: { lines: HandoverNote['lines'] }) {
  if (lines.length === 0) return null
  return (
    <ul className="mt-3 grid gap-1.5">
      {lines.map((l) => (
        <li key={l.text} className={clsx('border-l-4 pl-3', l.grave ? 'border-outside font-semibold' : 'border-line')}>
          {told(l.text)}
        </li>
      ))}
    </ul>
  )
}
