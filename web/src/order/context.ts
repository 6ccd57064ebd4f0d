import type { MachineFile, Shift } from '@geolabe/contract'
import type { Place } from '@geolabe/core'
import { useOutletContext } from 'react-router'

export interface ShiftContext {
  shift: Shift
  file: MachineFile
  place: Place
}

/** What every station of a shift works with. */
export const useShiftContext = () => useOutletContext<ShiftContext>()
