import type { ProcedureFile, ProcedureFinding } from '@geolabe/core'
import { wrap } from 'comlink'
import { useEffect, useState } from 'react'
import type { Looker } from './look-through.worker'

/** What is wrong with an order, once whoever writes it pauses; null while it is looked through. One that was changed meanwhile is looked through anew. */
export function useFindings(file: ProcedureFile | null): ProcedureFinding[] | null {
  const [heard, setHeard] = useState<{ of: ProcedureFile; findings: ProcedureFinding[] } | null>(null)
  useEffect(() => {
    if (!file) return
    let worker: Worker | null = null
    const timer = setTimeout(async () => {
      worker = new Worker(new URL('./look-through.worker.ts', import.meta.url), { type: 'module' })
      setHeard({ of: file, findings: await wrap<Looker>(worker).findings(file) })
    }, 500)
    return () => {
      clearTimeout(timer)
      worker?.terminate()
    }
  }, [file])
  return heard !== null && heard.of === file ? heard.findings : null
}
