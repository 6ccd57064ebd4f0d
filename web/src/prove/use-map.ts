import { type Case, rowFigures } from '@geolabe/core'
import { useEffect, useRef, useState } from 'react'
import type { MapAnswer, MapQuestion } from './map.worker'

const slews_deg = Array.from({ length: 360 }, (_, i) => i)

/** The map round the machine for a case, kept current while a point is dragged: one worker for as long as the screen is open. */
export function useMap(c: Case, most_m: number): MapAnswer | null {
  const [answer, setAnswer] = useState<MapAnswer | null>(null)
  const worker = useRef<Worker | null>(null)
  const asked = useRef(0)
  useEffect(() => {
    const w = new Worker(new URL('./map.worker.ts', import.meta.url), { type: 'module' })
    w.onmessage = ({ data }: MessageEvent<MapAnswer>) => {
      if (data.id === asked.current) setAnswer(data)
    }
    worker.current = w
    return () => w.terminate()
  }, [])
  useEffect(() => {
    // A hundred radii, and those at which a table steps.
    const rows = rowFigures(c.tables, 'radius_m')
    const even = Array.from({ length: 100 }, (_, i) => 1 + ((most_m - 1) * i) / 99)
    const radii_m = [...new Set([...even, ...rows])].sort((a, b) => a - b)
    const question: MapQuestion = { id: ++asked.current, case: c, radii_m, slews_deg }
    worker.current?.postMessage(question)
  }, [c, most_m])
  return answer
}
