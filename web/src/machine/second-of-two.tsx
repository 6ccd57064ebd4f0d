import type { Machine, World } from '@geolabe/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { call, get, newId } from '../api/client'
import { queryClient } from '../api/me'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { TextField } from '../look/field'
import { Refused, Sheet } from '../look/page'

/** How often it is asked whether a step waits. */
const ask_ms = 3000

interface Props {
  shift: string
  operator: string
  machine: Machine
}

/** Whoever watches confirms here, under their own name, with the figures that are shown at the machine; there only while a step waits for them. */
export function SecondOfTwo({ shift, operator, machine }: Props) {
  const [code, setCode] = useState('')
  const [error, setError] = useState<unknown>(null)
  const [done, setDone] = useState('')
  const key = ['shift', shift, 'waiting']
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => get<Pick<World, 'waiting'>>(`/shifts/${shift}/world`),
    refetchInterval: ask_ms,
  })
  const step = machine.procedures.procedures.flatMap((p) => p.steps).find((s) => s.id === data?.waiting?.step)
  const confirm = async () => {
    setError(null)
    try {
      const path = `/shifts/${shift}/second-codes/${encodeURIComponent(code.replaceAll(' ', ''))}`
      await call({ method: 'POST', path, body: {}, key: newId() })
      setDone(step?.label ?? '')
      setCode('')
      await queryClient.invalidateQueries({ queryKey: key })
    } catch (e) {
      setError(e)
    }
  }
  if (!step) return done && <p role="status" className="mb-3 font-semibold">{t`Confirmed under your name: ${told(done)}`}</p>
  return (
    <Sheet title={t`Second of two, with ${operator}`}>
      <p className="text-lg font-semibold">{told(step.label)}</p>
      {step.caution && <p className="font-semibold text-near">{told(step.caution)}</p>}
      <p>{t`Stand where you see it. Confirm only what you have seen yourself.`}</p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <TextField label={t`Code shown at the machine`} value={code} onChange={setCode} inputMode="numeric" />
        <Button
          look="next"
          disabled={!/^\d{3} ?\d{3}$/.test(code.trim())}
          onClick={() => void confirm()}
        >{t`Seen, confirmed`}</Button>
      </div>
      <Refused error={error} />
    </Sheet>
  )
}
