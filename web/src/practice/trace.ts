/** Where tip and load went in plan, ten times a second. */
export interface Trace {
  tip: [number, number][]
  load: [number, number][]
}
export const traceEvery_ticks = 12
