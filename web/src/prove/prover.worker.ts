import { type Assessment, assess, Refusal } from '@geolabe/core'
import { expose } from 'comlink'
import type { Ground, Planned } from './case-parts'

export interface Proof {
  assessment: Assessment | null
  /** Why there is none: the plan does not fit the machine. */
  refused: string | null
}

let ground: Ground | null = null

/** The proof of a lift, beside the page: a finger that drags a point never waits for it. */
const prover = {
  stand(g: Ground): void {
    ground = g
  },
  prove(planned: Planned): Proof {
    if (!ground) throw new Error('asked before it was told where')
    try {
      return { assessment: assess({ ...ground, ...planned }), refused: null }
    } catch (e) {
      if (e instanceof Refusal) return { assessment: null, refused: e.message }
      throw e
    }
  },
}
export type Prover = typeof prover
expose(prover)
