import { type RefObject, useCallback, useEffect } from 'react'
import { type Paints, paintsOf } from './scene'

/** Pictures drawn now, and again where their room changes or day turns to night while time stands still. */
export function usePictures<T>(canvases: readonly RefObject<HTMLCanvasElement | null>[], draw: (paint: Paints) => T): () => T {
  const now = useCallback(() => draw(paintsOf(document.documentElement)), [draw])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the canvases stay the same
  useEffect(() => {
    const watched = new ResizeObserver(() => void now())
    for (const { current } of canvases) if (current) watched.observe(current)
    const lit = new MutationObserver(() => void now())
    lit.observe(document.documentElement, { attributeFilter: ['data-light'] })
    return () => {
      watched.disconnect()
      lit.disconnect()
    }
  }, [now])
  return now
}
