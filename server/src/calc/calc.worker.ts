import { parentPort } from 'node:worker_threads'
import { calculatorNamed } from '@geolabe/core'

export interface CalcJob {
  id: number
  name: string
  input: unknown
}
export interface CalcDone {
  id: number
  /** Null: a fault of ours; what it was stands in the log. */
  answer: object | null
}

parentPort?.on('message', ({ id, name, input }: CalcJob) => {
  let answer: object | null = null
  try {
    answer = calculatorNamed(name)?.run(input) ?? null
  } catch (e) {
    console.error(e)
  }
  parentPort?.postMessage({ id, answer } satisfies CalcDone)
})

// Loaded: the time of a sum counts from here on.
parentPort?.postMessage('ready')
