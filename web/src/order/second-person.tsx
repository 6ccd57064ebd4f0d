import type { SecondCode } from '@geolabe/contract'
import type { ProcedureStep } from '@geolabe/core'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { ApiError, call, newId } from '../api/client'
import { useMe } from '../api/me'
import { outbox } from '../api/outbox'
import { t } from '../language/t'
import { Button } from '../look/button'
import { TextField } from '../look/field'
import { Refused } from '../look/page'
import { useShiftContext } from './context'
import type { Order } from './use-order'

/** The second of two confirms with their own badge and PIN. */
export function SecondPerson({ step, order }: { step: ProcedureStep; order: Order }) {
  const [badge, setBadge] = useState('')
  const [pin, setPin] = useState('')
  const { data: me } = useMe()
  const same = badge.trim() !== '' && badge.trim() === me?.badge
  const { shift } = useShiftContext()
  // The step that waits has to be in the records first: a slow network may still be on the way with it.
  const code = useMutation({
    mutationFn: async () => {
      await outbox.allSent()
      return call<SecondCode>({ method: 'POST', path: `/shifts/${shift.id}/second-codes`, body: {}, key: newId() })
    },
    retry: (tried, e) => tried < 4 && e instanceof ApiError && e.retryable,
    networkMode: 'always',
  })
  const confirm = () => {
    void order.second(step.id, { badge, pin })
    setPin('')
  }
  return (
    <div className="mt-1 grid gap-2 rounded-lg border-2 border-ink bg-sheet p-3">
      <p className="font-semibold">{t`The second person confirms: ${step.two?.signals ?? ''}`}</p>
      <div className="flex flex-wrap items-end gap-2">
        <TextField label={t`Badge`} value={badge} onChange={setBadge} />
        <TextField label={t`PIN`} value={pin} onChange={setPin} type="password" inputMode="numeric" />
        <Button look="next" disabled={badge === '' || pin === '' || same} onClick={confirm}>{t`Seen, confirmed`}</Button>
      </div>
      {code.data ? (
        <p>
          {t`On their own device: open this machine, enter`}{' '}
          <strong className="figure text-3xl tracking-widest">{code.data.code}</strong>
        </p>
      ) : (
        <Button look="quiet" disabled={code.isPending} onClick={() => code.mutate()}>
          {code.isPending ? t`Waiting for the records …` : t`They have their own device: show a code`}
        </Button>
      )}
      <Refused error={code.error} />
      {same && <p role="status" className="font-semibold text-outside">{t`Two people, two badges: the other one confirms.`}</p>}
    </div>
  )
}
