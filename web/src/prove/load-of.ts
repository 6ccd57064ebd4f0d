import type { LiftPlan, Place } from '@geolabe/core'

type Load = LiftPlan['hung']['load']

/** A load as it waits at a place; null: something that nobody has listed. */
export function loadOf(l: Place['loads'][number] | undefined): Load {
  if (!l) return { name: '', mass_kg: null, massSource: null, windArea_m2: null, dragCoefficient: 1.2 }
  return {
    name: l.label,
    mass_kg: l.mass_kg,
    massSource: l.massSource,
    windArea_m2: l.windArea_m2,
    dragCoefficient: l.dragCoefficient,
    ...(l.size ? { size: l.size } : {}),
    ...(l.cg ? { cg: l.cg } : {}),
  }
}
