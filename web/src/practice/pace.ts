import { tick_s } from '@geolabe/core'

/** Further behind than this, practice waits for the device instead of running on unseen. */
const behind_s = 0.25

/** Turns frames, however they fall, into ticks. */
export class Pace {
  private owed_s = 0

  /**
   * So much time has passed: as many ticks as are due, until it is over.
   *
   * @returns false where the device was too far behind: time stood still meanwhile
   */
  pass(seconds: number, isOver: () => boolean, tick: () => void): boolean {
    this.owed_s += Math.min(seconds, behind_s)
    while (this.owed_s >= tick_s && !isOver()) {
      this.owed_s -= tick_s
      tick()
    }
    return seconds <= behind_s
  }
}
