import type { PracticeRun } from '@geolabe/contract'
import type { Machine } from '@geolabe/core'
import { useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { type Moment, SeenAgain } from './seen-again'
import type { Trace } from './trace'

/** A run that is over, to be seen again. */
export function SeeAgain(seen: { machine: Machine; run: PracticeRun; ghost?: Trace; moments: readonly Moment[] }) {
  const { machine } = seen
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button className="mt-3" onClick={() => setOpen(true)}>{t`See it again`}</Button>
      <Dialog open={open} onClose={() => setOpen(false)} title={t`Practice on ${machine.name}, seen again`}>
        <SeenAgain {...seen} />
      </Dialog>
    </>
  )
}
