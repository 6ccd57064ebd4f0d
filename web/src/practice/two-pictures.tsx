import type { RefObject } from 'react'
import { t } from '../language/t'
import { clockOf } from './clock'

/** A run from above, and beside it from the side or its triangle, at one moment. */
export function TwoPictures({
  above,
  beside,
  time_s,
}: Record<'above' | 'beside', RefObject<HTMLCanvasElement | null>> & { time_s: number }) {
  return (
    <div className="grid h-72 grid-cols-[5fr_2fr] gap-2 max-sm:h-60">
      {[above, beside].map((canvas, i) => (
        <div key={i === 0 ? 'above' : 'beside'} className="relative overflow-hidden rounded-xl border border-line">
          <canvas
            ref={canvas}
            role="img"
            aria-label={i === 0 ? t`From above, ${clockOf(time_s)} into the run` : t`Beside it, at the same moment`}
            className="absolute inset-0 size-full"
          />
        </div>
      ))}
    </div>
  )
}
