import type { TransferToLift } from '@geolabe/core'

/** What a calculator puts into the next lift of a shift. */
export type Transferred = TransferToLift & { name?: string }

const place = (shift: string) => `geolabe.transfer.${shift}`

export function keepForLift(shift: string, t: Transferred): void {
  localStorage.setItem(place(shift), JSON.stringify(t))
}

/** Takes what was kept for a shift's next lift, once. */
export function takeForLift(shift: string): Transferred | null {
  const kept = localStorage.getItem(place(shift))
  if (kept === null) return null
  localStorage.removeItem(place(shift))
  try {
    return JSON.parse(kept) as Transferred
  } catch {
    return null
  }
}
