import type { ProcedureStep } from '@geolabe/core'
import { useEffect, useState } from 'react'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import type { Order } from './use-order'

/** A control that is held, or a watch with all controls let go: one tap as it begins, one as it ends; eyes stay on the machine. */
export function HeldStep({ step, order, onBegin }: { step: ProcedureStep; order: Order; onBegin: () => void }) {
  const { holding } = order.world
  const since_ms = holding?.step === step.id ? holding.since_ms : null
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (since_ms === null) return
    const timer = setInterval(() => setNow(Date.now()), 250)
    return () => clearInterval(timer)
  }, [since_ms])
  const { hold } = step
  if (!hold) return null
  const held_s = since_ms === null ? 0 : Math.max(0, (now - since_ms) / 1000)
  const enough = held_s >= hold.least_s
  const late = hold.most_s !== undefined && held_s > hold.most_s
  const end = (failed: boolean) => void order.tell([{ do: 'hold-end', step: step.id, failed }])
  return (
    <div className="rounded-lg border-2 border-ink bg-sheet p-3">
      <p className="font-semibold">{told(step.label)}</p>
      {step.detail && <p className="text-[0.95rem] text-quiet">{told(step.detail)}</p>}
      {step.caution && <p className="font-semibold text-near">{told(step.caution)}</p>}
      {since_ms === null ? (
        <Button look="next" className="mt-2" onClick={onBegin}>
          {hold.watch ? t`Watch ${hold.least_s} s` : t`I begin to hold it`}
        </Button>
      ) : (
        <>
          <p role="timer" className="figure my-1 text-3xl">
            {t`${Math.floor(held_s)} of ${hold.least_s} s`}
          </p>
          {late && <p className="font-semibold text-outside">{t`Too long: let go. What it did is not known.`}</p>}
          <div className="flex flex-wrap gap-2">
            <Button look="next" disabled={!enough} onClick={() => end(false)}>
              {hold.watch ? t`It did not move` : t`Let go: done`}
            </Button>
            <Button look="stop" onClick={() => end(true)}>
              {hold.watch ? t`It moved` : t`Let go early`}
            </Button>
          </div>
        </>
      )}
    </div>
  )
}
