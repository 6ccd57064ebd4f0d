/**
 * Asks one question at a time and always the newest: what was overtaken while it waited is never asked, so that no queue grows
 * behind a finger that moves faster than answers come.
 *
 * @param heard called with each answer and the question it answers
 * @param failed called where an answer cannot be had: what was shown before is not of this question
 * @example const ask = latest(worker.prove, (proof) => setProof(proof), () => setProof(null)); ask(plan)
 */
export function latest<Q, A>(
  answer: (q: Q) => Promise<A>,
  heard: (a: A, q: Q) => void,
  failed: (why: unknown, q: Q) => void,
): (q: Q) => void {
  let waiting: { q: Q } | null = null
  let busy = false
  const next = async () => {
    while (waiting) {
      const { q } = waiting
      waiting = null
      try {
        heard(await answer(q), q)
      } catch (e) {
        failed(e, q)
      }
    }
  }
  return (q) => {
    waiting = { q }
    if (busy) return
    busy = true
    void next().finally(() => {
      busy = false
    })
  }
}
