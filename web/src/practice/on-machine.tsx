import type { Game, MachineFile } from '@geolabe/contract'
import type { ReactNode } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { useMachine, usePractice } from '../api/queries'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { lastOf, levelAfter } from './level'
import { Sit } from './sit'

/** A game on the machine of the address: a try of the exam that the address names, or as hard as the last run of one's own says. */
export function OnMachine({ game, children }: { game: Game; children: (file: MachineFile, level: number) => ReactNode }) {
  const { machine = '' } = useParams()
  const [query] = useSearchParams()
  const exam = query.get('exam')
  const file = useMachine(machine)
  if (exam === null) return <OwnPace game={game}>{children}</OwnPace>
  return <Loaded query={file}>{(f) => <Sit exam={exam}>{(level) => children(f, level)}</Sit>}</Loaded>
}

/** Without the records it begins easy. */
function OwnPace({ game, children }: { game: Game; children: (file: MachineFile, level: number) => ReactNode }) {
  const { machine = '' } = useParams()
  const [file, runs] = [useMachine(machine), usePractice()]
  if (runs.isLoading) return <Loaded query={runs}>{() => null}</Loaded>
  return <Loaded query={file}>{(f) => children(f, levelAfter(lastOf(runs.data?.runs ?? [], f.definition.id, game)))}</Loaded>
}

/** Why a game is not to be had on a machine. */
export function NotOffered({ title, error, onLeave }: { title: string; error: unknown; onLeave: () => void }) {
  return (
    <>
      <Title>{title}</Title>
      <Refused error={error} />
      <Button onClick={onLeave}>{t`Leave practice`}</Button>
    </>
  )
}

/** Nothing to show yet, and where there is something to do. */
export function NothingYet({ children }: { children: string }) {
  return (
    <Sheet>
      <p className="text-lg font-bold">{children}</p>
      <Link to="/practice" className="mt-2 inline-flex min-h-12 items-center font-semibold underline underline-offset-4">
        {t`Everything that can be practised`}
      </Link>
    </Sheet>
  )
}

/** Time standing still: before it begins, or between. */
export function Halted({
  ready,
  children,
  beside,
  onGo,
  onLeave,
}: {
  /** It has not begun yet. */
  ready: boolean
  /** What is to be done, before it begins. */
  children: ReactNode
  /** What else can be set before it goes on. */
  beside?: ReactNode
  onGo: () => void
  onLeave: () => void
}) {
  return (
    <div className="pointer-events-auto max-w-md rounded-xl border-2 border-ink bg-paper p-4">
      {ready ? children : <p className="text-lg font-bold">{t`Time stands still. Go on when you are ready.`}</p>}
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button look="next" onClick={onGo}>
          {ready ? t`Begin` : t`Go on`}
        </Button>
        <Button look="quiet" onClick={onLeave}>{t`Leave practice`}</Button>
        {beside}
      </div>
    </div>
  )
}
