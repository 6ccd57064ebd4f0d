import { barOf, type Drill, type LoadRun, type Machine, playRun } from '@geolabe/core'
import { expose } from 'comlink'

/** Where tip and load went in plan, ten times a second. */
export interface Trace {
  tip: [number, number][]
  load: [number, number][]
}
const every_ticks = 12

const traceOf = (d: Drill): Trace => {
  const kept = d.samples.filter((_, k) => k % every_ticks === 0)
  return {
    tip: kept.map((s) => [s.tip[0], s.tip[1]]),
    load: kept.map((s) => [s.load[0], s.load[1]]),
  }
}

/** Plays a run again beside the screen, with the reference on the same course: it takes a second or two. */
const player = {
  play: (m: Machine, run: LoadRun) => {
    const { drill, reference, result } = playRun(m, run)
    return { result, own: traceOf(drill), reference: traceOf(reference), takes_s: barOf(reference).map((b) => b.takes_s) }
  },
}
export type Player = typeof player
export type Replay = ReturnType<Player['play']>
expose(player)
