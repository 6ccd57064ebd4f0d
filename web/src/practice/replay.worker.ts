import { barOf, type Drill, type LoadRun, type Machine, playRun } from '@geolabe/core'
import { expose } from 'comlink'
import { type Trace, traceEvery_ticks } from './trace'

const traceOf = (d: Drill): Trace => {
  const kept = d.samples.filter((_, k) => k % traceEvery_ticks === 0)
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
