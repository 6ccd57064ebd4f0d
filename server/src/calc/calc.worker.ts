import { recompute, type ShiftFile } from '@geolabe/contract'
import { calculatorNamed } from '@geolabe/core'

/** One calculation, or every lift of a file from elsewhere worked out again. */
export type CalcJob = { name: string; input: unknown } | { file: ShiftFile }

/** Nothing to do: the worker has loaded. Null: a fault of ours; what it was stands in the log. */
export default function work(job: { input: CalcJob } | null): object | null {
  if (job === null) return null
  try {
    if ('file' in job.input) return recompute(job.input.file)
    return calculatorNamed(job.input.name)?.run(job.input.input) ?? null
  } catch (e) {
    console.error(e)
    return null
  }
}
