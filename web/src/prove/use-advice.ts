import { type Assessment, type Case, type Crane, extension, type Place } from '@geolabe/core'
import { useEffect, useRef, useState } from 'react'
import { blockedBy } from '../setup/draft'
import type { Advice, Question } from './advisor.worker'

/** Asks the worker once the person pauses; a question that has been overtaken ends with its worker. */
export function useAdvice(
  c: Case,
  assessment: Assessment | null,
  machine: Crane,
  place: Place,
): { advice: Advice | null; current: boolean } {
  const [advice, setAdvice] = useState<Advice | null>(null)
  const [current, setCurrent] = useState(false)
  const count = useRef(0)
  useEffect(() => {
    setCurrent(false)
    const id = ++count.current
    let worker: Worker | null = null
    const timer = setTimeout(() => {
      worker = new Worker(new URL('./advisor.worker.ts', import.meta.url), { type: 'module' })
      worker.onmessage = ({ data }: MessageEvent<Advice>) => {
        if (data.id !== count.current) return
        setAdvice(data)
        setCurrent(true)
      }
      const blocked = machine.outriggers.flatMap((l) =>
        extension.options.flatMap((e) =>
          [null, ...place.mats.map((m) => m.id)]
            .filter((mat) => blockedBy(machine, place, c.setup.position, l.id, e, mat))
            .map((mat) => ({ outrigger: l.id, extension: e, mat })),
        ),
      )
      const failed = assessment?.findings.filter((f) => f.verdict === 'outside') ?? []
      const question: Question = { id, case: c, failed, mats: place.mats, blocked }
      worker.postMessage(question)
    }, 180)
    return () => {
      clearTimeout(timer)
      worker?.terminate()
    }
  }, [c, assessment, machine, place])
  return { advice, current }
}
