import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { type ReactNode, useEffect, useLayoutEffect, useRef, useState } from 'react'
import { t } from '../language/t'
import { Button } from './button'

/**
 * A list of any length: only what is in view is laid out, and earlier pages are fetched as their end comes near. It scrolls with the
 * page.
 *
 * @param estimate_px how high a row is about, until it has been measured
 */
export function LongList<T>({
  label,
  items,
  keyOf,
  row,
  estimate_px,
  more,
}: {
  label: string
  items: readonly T[]
  keyOf: (item: T) => string
  row: (item: T) => ReactNode
  estimate_px: number
  more: { has: boolean; fetch: () => void; fetching: boolean }
}) {
  const list = useRef<HTMLOListElement>(null)
  const [top_px, setTop] = useState(0)
  useLayoutEffect(() => setTop(list.current?.offsetTop ?? 0), [])
  const virtual = useWindowVirtualizer({
    count: items.length,
    estimateSize: () => estimate_px,
    getItemKey: (i) => keyOf(items[i] as T),
    overscan: 8,
    gap: 8,
    scrollMargin: top_px,
  })
  const shown = virtual.getVirtualItems()
  const last = shown.at(-1)?.index ?? 0
  const { has, fetch, fetching } = more
  useEffect(() => {
    if (has && !fetching && last >= items.length - 10) fetch()
  }, [has, fetching, fetch, last, items.length])
  return (
    <>
      <ol ref={list} aria-label={label} className="relative mb-4" style={{ height: virtual.getTotalSize() }}>
        {shown.map((v) => (
          <li
            key={v.key}
            ref={virtual.measureElement}
            data-index={v.index}
            aria-posinset={v.index + 1}
            aria-setsize={has ? -1 : items.length}
            className="absolute inset-x-0 top-0"
            style={{ transform: `translateY(${v.start - top_px}px)` }}
          >
            {row(items[v.index] as T)}
          </li>
        ))}
      </ol>
      {has && <Button onClick={fetch} disabled={fetching}>{t`Earlier ones`}</Button>}
    </>
  )
}
