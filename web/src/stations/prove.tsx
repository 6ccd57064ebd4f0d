import { isGantry, isRunway, isStraddle, isTruck, liftsOnHook, standsToTow, tows } from '@geolabe/core'
import { lazy, Suspense } from 'react'
import { Link } from 'react-router'
import { t } from '../language/t'
import { ActionBar, Title } from '../look/page'
import { useShiftContext } from '../order/context'

const ProveCrane = lazy(() => import('../prove/prove').then((m) => ({ default: m.ProveCrane })))
const ProveGantry = lazy(() => import('../gantry/prove-gantry').then((m) => ({ default: m.ProveGantry })))
const ProveStraddle = lazy(() => import('../straddle/prove-straddle').then((m) => ({ default: m.ProveStraddle })))
const ProveRunway = lazy(() => import('../runway/prove-runway').then((m) => ({ default: m.ProveRunway })))
const ProveTow = lazy(() => import('../tow/prove-tow').then((m) => ({ default: m.ProveTow })))
const ProveTruck = lazy(() => import('../truck/prove-truck').then((m) => ({ default: m.ProveTruck })))

/** Station: what is to be done, proven by the parts that the machine has. */
export function Prove() {
  const context = useShiftContext()
  const machine = context.file.definition
  const setup = context.shift.setups.at(-1)
  if (!setup) {
    return (
      <>
        <Title>{t`Prove the lift`}</Title>
        <p className="text-lg">{t`The machine is not set up yet, and a rating belongs to exactly one set-up.`}</p>
        <ActionBar>
          <Link
            className="flex min-h-16 items-center rounded-lg border-2 border-ink bg-accent px-7 text-lg font-bold text-on-accent"
            to={`/shifts/${context.shift.id}/set-up`}
          >{t`Set up first`}</Link>
        </ActionBar>
      </>
    )
  }
  return (
    <Suspense>
      {isTruck(machine) ? (
        <ProveTruck key={setup.id} {...context} machine={machine} setup={setup} />
      ) : tows(machine) && standsToTow(machine, setup.plan.standing) ? (
        <ProveTow key={setup.id} {...context} machine={machine} setup={setup} />
      ) : liftsOnHook(machine) ? (
        <ProveCrane key={setup.id} {...context} machine={machine} setup={setup} />
      ) : isRunway(machine) ? (
        <ProveRunway key={setup.id} {...context} machine={machine} setup={setup} />
      ) : isGantry(machine) ? (
        <ProveGantry key={setup.id} {...context} machine={machine} setup={setup} />
      ) : isStraddle(machine) ? (
        <ProveStraddle key={setup.id} {...context} machine={machine} setup={setup} />
      ) : (
        <p>{t`This machine’s work is not proved here.`}</p>
      )}
    </Suspense>
  )
}
