import { wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { Ground, Planned } from './case-parts'
import { latest } from './latest'
import type { Proof, Prover } from './prover.worker'

interface Heard {
  proof: Proof
  /** What was proved. */
  of: Planned
  on: Ground
}

/**
 * The proof of what is planned, and whether it is of what is on the screen now. Null until the first is there. `lost`: this device
 * cannot work it out; what was heard before is then of no account.
 */
export function useProof(ground: Ground, planned: Planned): { heard: Heard | null; current: boolean; lost: boolean } {
  const [lost, setLost] = useState(false)
  const [heard, setHeard] = useState<Heard | null>(null)
  const ask = useRef<((p: Planned) => void) | null>(null)
  useEffect(() => {
    const worker = new Worker(new URL('./prover.worker.ts', import.meta.url), { type: 'module' })
    const prover = wrap<Prover>(worker)
    void prover.stand(ground)
    setLost(false)
    const lose = () => setLost(true)
    ask.current = latest(
      (p: Planned) => prover.prove(p),
      (proof, of) => setHeard({ proof, of, on: ground }),
      lose,
    )
    worker.addEventListener('error', lose)
    return () => {
      ask.current = null
      worker.terminate()
    }
  }, [ground])
  // biome-ignore lint/correctness/useExhaustiveDependencies: another ground asks anew
  useEffect(() => ask.current?.(planned), [planned, ground])
  return { heard: lost ? null : heard, current: !lost && heard?.of === planned && heard.on === ground, lost }
}
