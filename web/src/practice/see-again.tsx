import type { PracticeRun } from '@geolabe/contract'
import type { Machine } from '@geolabe/core'
import { useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { type Moment, SeenAgain } from './seen-again'

/** A run that is over, to be seen again. */
export function SeeAgain({ machine, run, moments }: { machine: Machine; run: PracticeRun; moments: readonly Moment[] }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button className="mt-3" onClick={() => setOpen(true)}>{t`See it again`}</Button>
      <Dialog open={open} onClose={() => setOpen(false)} title={t`Practice on ${machine.name}, seen again`}>
        <SeenAgain machine={machine} run={run} moments={moments} />
      </Dialog>
    </>
  )
}
