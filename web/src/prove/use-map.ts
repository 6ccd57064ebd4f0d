import type { LiftPlan, MapZone } from '@geolabe/core'
import { wrap } from 'comlink'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Ground, Planned } from './case-parts'
import { stepOf, withStep } from './draft'
import { latest } from './latest'
import type { Mapper } from './map.worker'

/** The lift without its points: a map says where a load may go, wherever it is taken from. */
function withoutPoints(lift: LiftPlan): LiftPlan {
  const nowhere = { radius_m: 1, slew_deg: 0 }
  return withStep({ ...lift, steps: [stepOf(lift)] }, { pickUp: nowhere, setDown: nowhere })
}

/** The map round the machine for what is planned: drawn anew when something changes that it is made from, not while a point moves. */
export function useMap(ground: Ground, { setup, lift, conditions }: Planned): (MapZone | null)[] | null {
  const [zones, setZones] = useState<(MapZone | null)[] | null>(null)
  const ask = useRef<((p: Planned) => void) | null>(null)
  useEffect(() => {
    const worker = new Worker(new URL('./map.worker.ts', import.meta.url), { type: 'module' })
    const mapper = wrap<Mapper>(worker)
    void mapper.stand(ground)
    // Without an answer nothing is drawn as open ground.
    const lose = () => setZones(null)
    ask.current = latest((p: Planned) => mapper.zones(p), setZones, lose)
    worker.addEventListener('error', lose)
    return () => {
      ask.current = null
      worker.terminate()
    }
  }, [ground])
  // By what it says, not by which object says it: a moved point changes nothing here.
  const said = JSON.stringify({ setup, lift: withoutPoints(lift), conditions })
  const question = useMemo<Planned>(() => JSON.parse(said), [said])
  // biome-ignore lint/correctness/useExhaustiveDependencies: another ground asks anew
  useEffect(() => ask.current?.(question), [question, ground])
  return zones
}
