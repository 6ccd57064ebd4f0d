import type { Shift } from '@geolabe/contract'
import { useState } from 'react'
import { useMachine, useMyShifts, usePlaces, useShift } from '../api/queries'
import { t } from '../language/t'
import { Button } from '../look/button'
import { knownBy } from './drawings/mine'
import type { Presentation } from './drawings/present'
import type { Obj } from './schema'

/** The calculator on the machine and place of the shift that is open: one touch, and what they know is filled in. */
export function FromShift({ mine, onTake }: { mine: NonNullable<Presentation['mine']>; onTake: (known: Obj) => void }) {
  const open = useMyShifts().data?.shifts.find((s) => s.closedAt === null)
  return open ? <OfShift id={open.id} mine={mine} onTake={onTake} /> : null
}

function OfShift({ id, mine, onTake }: { id: string } & Parameters<typeof FromShift>[0]) {
  const shift = useShift(id).data
  return shift ? <OfMachine shift={shift} mine={mine} onTake={onTake} /> : null
}

function OfMachine({ shift, mine, onTake }: { shift: Shift } & Parameters<typeof FromShift>[0]) {
  const [taken, setTaken] = useState(false)
  const machine = useMachine(shift.machine.id).data?.definition
  const place = usePlaces().data?.places.find((p) => p.id === shift.place.id)
  const known = machine && place ? knownBy(mine, { machine, place, shift }) : null
  if (!known) return null
  return (
    <p className="flex flex-wrap items-center gap-x-3">
      <Button
        onClick={() => {
          onTake(known as Obj)
          setTaken(true)
        }}
      >{t`From ${shift.machine.name} at ${shift.place.name}`}</Button>
      <span role="status" className="text-quiet">
        {taken && t`What the shift knows is filled in. The rest is as it was: look at it.`}
      </span>
    </p>
  )
}
