import type { LiftPlan, Step } from '@geolabe/core'

type Doing<D extends Step['do']> = Extract<Step, { do: D }>

/** Plans in which one kind of step is all that is done. */
export function oneKind<D extends Step['do']>(does: D) {
  const isOwn = (s: Step): s is Doing<D> => s.do === does
  return {
    /** Is a draft that was kept on the device such a plan, and of today's shape? */
    is: ({ lift }: { lift?: LiftPlan | undefined }): boolean => lift?.format === 'geolabe.lift/2' && lift.steps.every(isOwn),
    /** @throws where the plan does nothing of the kind: it is not one of these */
    of: ({ steps }: LiftPlan): Doing<D> => {
      const own = steps.find(isOwn)
      if (!own) throw new Error(`This plan has no step of the kind ${does}.`)
      return own
    },
    with: (lift: LiftPlan, to: Partial<Doing<D>>): LiftPlan => ({
      ...lift,
      steps: lift.steps.map((s) => (isOwn(s) ? { ...s, ...to } : s)),
    }),
  }
}
