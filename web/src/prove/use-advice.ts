import { type Assessment, type Case, liftsOnOutriggers, type Machine, stopsOf, type Uncertainty } from '@geolabe/core'
import { wrap } from 'comlink'
import { useEffect, useState } from 'react'
import { blockedBy } from '../setup/draft'
import type { Advice, Advisor } from './advisor.worker'

interface Advised {
  of: Assessment
  uncertainty: Uncertainty | null
  advice: Advice | null
}

/** Asks the worker once the person pauses; a question that has been overtaken ends with its worker. */
export function useAdvice(
  c: Case | null,
  assessment: Assessment | null,
  machine: Machine,
): { advice: Advice | null; uncertainty: Uncertainty | null; current: boolean } {
  const [heard, setHeard] = useState<Advised | null>(null)
  useEffect(() => {
    if (!assessment || !c) return
    let worker: Worker | null = null
    const timer = setTimeout(async () => {
      worker = new Worker(new URL('./advisor.worker.ts', import.meta.url), { type: 'module' })
      const advisor = wrap<Advisor>(worker)
      const blocked = (liftsOnOutriggers(machine) ? machine.outriggers : []).flatMap((l) =>
        stopsOf(l).flatMap(({ id: stop }) =>
          [null, ...c.place.mats.map((m) => m.id)]
            .filter((mat) => liftsOnOutriggers(machine) && blockedBy(machine, c.place, c.setup.position, l.id, stop, mat))
            .map((mat) => ({ outrigger: l.id, stop, mat })),
        ),
      )
      const failed = assessment.findings.filter((f) => f.verdict === 'outside')
      const uncertainty = await advisor.uncertainty(c)
      setHeard({ of: assessment, uncertainty, advice: null })
      setHeard({ of: assessment, uncertainty, advice: await advisor.advise({ case: c, failed, mats: c.place.mats, blocked }) })
    }, 180)
    return () => {
      clearTimeout(timer)
      worker?.terminate()
    }
  }, [c, assessment, machine])
  const own = heard?.of === assessment ? heard : null
  return { advice: own?.advice ?? null, uncertainty: own?.uncertainty ?? null, current: Boolean(own?.advice) }
}
