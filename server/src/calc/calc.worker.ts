import { calculatorNamed } from '@geolabe/core'

export interface CalcJob {
  name: string
  input: unknown
}

/** Nothing to do: the worker has loaded. Null: a fault of ours; what it was stands in the log. */
export default function work(job: { input: CalcJob } | null): object | null {
  if (job === null) return null
  try {
    return calculatorNamed(job.input.name)?.run(job.input.input) ?? null
  } catch (e) {
    console.error(e)
    return null
  }
}
