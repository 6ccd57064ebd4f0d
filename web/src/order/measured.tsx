import type { ProcedureStep } from '@geolabe/core'
import { useState } from 'react'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { TextField } from '../look/field'
import { parsePlain } from '../units/units'
import type { Order } from './use-order'

/** A figure that a step asks for: read off, with how far off the reading may be. */
export function Measured({ measure: m, order }: { measure: ProcedureStep['measures'][number]; order: Order }) {
  const [typed, setTyped] = useState('')
  const value = parsePlain(typed)
  const known = order.world.inputs[m.id]
  const range = value !== null && (value < m.min || value > m.max)
  const enter = () => {
    if (value === null) return
    void order.tell([{ do: 'measure', input: m.id, value, tolerance: typeof m.tolerance === 'number' ? m.tolerance : 0 }])
    setTyped('')
  }
  return (
    <div className="mt-1 flex flex-wrap items-end gap-2 pl-3" data-usual={m.usual}>
      <TextField
        label={told(m.ask)}
        value={typed}
        onChange={setTyped}
        inputMode="decimal"
        hint={known ? t`Read: ${known.value}` : told(m.how)}
        error={range ? t`Between ${m.min} and ${m.max}.` : undefined}
      />
      <Button disabled={value === null || range} onClick={enter}>{t`Enter it`}</Button>
    </div>
  )
}
