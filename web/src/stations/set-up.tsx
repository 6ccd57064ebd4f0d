import { isGantry, isRunway, isStraddle, isTruck, liftsOnHook, liftsOnOutriggers } from '@geolabe/core'
import { lazy, Suspense } from 'react'
import { useShiftContext } from '../order/context'

const SetupCrane = lazy(() => import('../setup/setup').then((m) => ({ default: m.SetupCrane })))
const SetupTruck = lazy(() => import('../truck/setup-truck').then((m) => ({ default: m.SetupTruck })))
const SetupGantry = lazy(() => import('../gantry/setup-gantry').then((m) => ({ default: m.SetupGantry })))
const SetupStraddle = lazy(() => import('../straddle/setup-straddle').then((m) => ({ default: m.SetupStraddle })))
const SetupTracks = lazy(() => import('../tracks/setup-tracks').then((m) => ({ default: m.SetupTracks })))
const SetupTower = lazy(() => import('../tower/setup-tower').then((m) => ({ default: m.SetupTower })))
const SetupRunway = lazy(() => import('../runway/setup-runway').then((m) => ({ default: m.SetupRunway })))
const OrderStationPage = lazy(() => import('../order/order-station').then((m) => ({ default: m.OrderStationPage })))

/** Station: how the machine is set up, by the parts that it has; what has neither follows its written sequence. */
export function Setup() {
  const context = useShiftContext()
  const machine = context.file.definition
  return (
    <Suspense>
      {isTruck(machine) ? (
        <SetupTruck {...context} machine={machine} />
      ) : liftsOnOutriggers(machine) ? (
        <SetupCrane {...context} machine={machine} />
      ) : liftsOnHook(machine) && machine.tracks ? (
        <SetupTracks {...context} machine={machine} />
      ) : liftsOnHook(machine) ? (
        <SetupTower {...context} machine={machine} />
      ) : isRunway(machine) ? (
        <SetupRunway {...context} machine={machine} />
      ) : isGantry(machine) ? (
        <SetupGantry {...context} machine={machine} />
      ) : isStraddle(machine) ? (
        <SetupStraddle {...context} machine={machine} />
      ) : (
        <OrderStationPage station="setup" />
      )}
    </Suspense>
  )
}
