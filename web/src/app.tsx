import { lazy, Suspense, useEffect } from 'react'
import { Navigate, Route, Routes, useLocation } from 'react-router'
import { useMe } from './api/me'
import { t } from './language/t'
import { Loaded } from './look/page'
import { SignIn } from './session/sign-in'

// The sign-on screen comes alone; everything behind it follows while somebody types.
const Shell = lazy(() => import('./session/shell').then((m) => ({ default: m.Shell })))
const Open = lazy(() => import('./session/shell').then((m) => ({ default: m.Open })))
const Yard = lazy(() => import('./yard/yard').then((m) => ({ default: m.Yard })))
const Take = lazy(() => import('./signon/take').then((m) => ({ default: m.Take })))
const ShiftFrame = lazy(() => import('./shift/frame').then((m) => ({ default: m.ShiftFrame })))
const Walkround = lazy(() => import('./walkround/walkround').then((m) => ({ default: m.Walkround })))
const FurtherInspection = lazy(() => import('./walkround/walkround').then((m) => ({ default: m.FurtherInspection })))
const Site = lazy(() => import('./site/site').then((m) => ({ default: m.Site })))
const Setup = lazy(() => import('./stations/set-up').then((m) => ({ default: m.Setup })))
const Prove = lazy(() => import('./stations/prove').then((m) => ({ default: m.Prove })))
const Lift = lazy(() => import('./lift/lift').then((m) => ({ default: m.Lift })))
const Stow = lazy(() => import('./stow/stow').then((m) => ({ default: m.Stow })))
const Defects = lazy(() => import('./defects/defects').then((m) => ({ default: m.Defects })))
const DefectPage = lazy(() => import('./defects/defect-page').then((m) => ({ default: m.DefectPage })))
const Calculators = lazy(() => import('./calculators/calculators').then((m) => ({ default: m.Calculators })))
const CalculatorPage = lazy(() => import('./calculators/calculator-page').then((m) => ({ default: m.CalculatorPage })))
const Tables = lazy(() => import('./tables/tables').then((m) => ({ default: m.Tables })))
const TablePage = lazy(() => import('./tables/table-page').then((m) => ({ default: m.TablePage })))
const PlacePage = lazy(() => import('./places/place-page').then((m) => ({ default: m.PlacePage })))
const Due = lazy(() => import('./due/due').then((m) => ({ default: m.Due })))
const Policies = lazy(() => import('./policies/policies').then((m) => ({ default: m.Policies })))
const People = lazy(() => import('./people/people').then((m) => ({ default: m.People })))
const MachinePage = lazy(() => import('./machine/machine-page').then((m) => ({ default: m.MachinePage })))
const Practice = lazy(() => import('./practice/practice').then((m) => ({ default: m.Practice })))
const FiveMinutes = lazy(() => import('./practice/five-minutes').then((m) => ({ default: m.FiveMinutes })))
const JudgeOn = lazy(() => import('./practice/judge').then((m) => ({ default: m.JudgeOn })))
const PracticeProgress = lazy(() => import('./practice/progress').then((m) => ({ default: m.PracticeProgress })))
const Exams = lazy(() => import('./practice/exams').then((m) => ({ default: m.Exams })))
const ExamPage = lazy(() => import('./practice/exam-page').then((m) => ({ default: m.ExamPage })))
const Certificates = lazy(() => import('./practice/certificates').then((m) => ({ default: m.Certificates })))
const FiveMinutesOffer = lazy(() => import('./practice/offer').then((m) => ({ default: m.FiveMinutesOffer })))
const DriveOn = lazy(() => import('./practice/driving').then((m) => ({ default: m.DriveOn })))
const SignalsOn = lazy(() => import('./practice/signals').then((m) => ({ default: m.SignalsOn })))
const OrderOn = lazy(() => import('./practice/order').then((m) => ({ default: m.OrderOn })))
const PracticeOn = lazy(() => import('./practice/practice').then((m) => ({ default: m.PracticeOn })))
const Records = lazy(() => import('./records/records').then((m) => ({ default: m.Records })))
const ShiftRecord = lazy(() => import('./records/shift-record').then((m) => ({ default: m.ShiftRecord })))

const waiting = <div className="h-40 animate-pulse rounded-xl bg-sunk" role="status" aria-label={t`Opening`} />

const calculators = (
  <Route path="calculators">
    <Route index element={<Calculators />} />
    <Route path=":name" element={<CalculatorPage />} />
  </Route>
)

/** Never waited for: the yard is there without it. */
const offer = (
  <Suspense fallback={null}>
    <FiveMinutesOffer />
  </Suspense>
)

export function App() {
  const me = useMe()
  const location = useLocation()
  // A new screen begins at its top.
  useEffect(() => {
    if (location.pathname) globalThis.scrollTo(0, 0)
  }, [location.pathname])
  // Calculators carry no one’s data: they open without a sign-on, and without a network.
  const open = location.pathname.startsWith('/calculators') && (me.data === null || me.error !== null)
  if (open) {
    return (
      <Suspense fallback={waiting}>
        <Open>
          <Routes>{calculators}</Routes>
        </Open>
      </Suspense>
    )
  }
  return (
    <Loaded query={me}>
      {(person) =>
        person === null ? (
          <SignIn />
        ) : (
          <Suspense fallback={waiting}>
            <Shell me={person}>
              <Suspense fallback={waiting}>
                <Routes>
                  <Route index element={<Yard offer={offer} />} />
                  <Route path="take/:machine" element={<Take />} />
                  <Route path="shifts/:id" element={<ShiftFrame />}>
                    <Route path="walk-round" element={<Walkround />} />
                    <Route path="inspections/:inspection" element={<FurtherInspection />} />
                    <Route path="site" element={<Site />} />
                    <Route path="set-up" element={<Setup />} />
                    <Route path="prove" element={<Prove />} />
                    <Route path="lift" element={<Lift />} />
                    <Route path="stow" element={<Stow />} />
                  </Route>
                  <Route path="defects" element={<Defects />} />
                  <Route path="defects/:id" element={<DefectPage />} />
                  <Route path="places" element={<PlacePage me={person} />} />
                  <Route path="places/:id" element={<PlacePage me={person} />} />
                  <Route path="due" element={<Due />} />
                  <Route path="policies" element={<Policies me={person} />} />
                  <Route path="people" element={<People me={person} />} />
                  <Route path="machines/:id" element={<MachinePage me={person} />} />
                  <Route path="tables" element={<Tables />} />
                  <Route path="tables/:id" element={<TablePage me={person} />} />
                  {calculators}
                  <Route path="practice" element={<Practice />} />
                  <Route path="practice/five" element={<FiveMinutes />} />
                  <Route path="practice/progress" element={<PracticeProgress />} />
                  <Route path="practice/exams" element={<Exams />} />
                  <Route path="practice/exams/:id" element={<ExamPage />} />
                  <Route path="practice/certificates" element={<Certificates />} />
                  <Route path="practice/:machine" element={<PracticeOn />} />
                  <Route path="practice/:machine/judgement" element={<JudgeOn />} />
                  <Route path="practice/:machine/signals" element={<SignalsOn />} />
                  <Route path="practice/:machine/driving" element={<DriveOn />} />
                  <Route path="practice/:machine/order" element={<OrderOn />} />
                  <Route path="records" element={<Records me={person} />} />
                  <Route path="records/:id" element={<ShiftRecord />} />
                  <Route path="*" element={<Navigate to="/" replace />} />
                </Routes>
              </Suspense>
            </Shell>
          </Suspense>
        )
      }
    </Loaded>
  )
}
