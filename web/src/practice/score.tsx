import { t } from '../language/t'
import { Button } from '../look/button'
import { ActionBar, Refused } from '../look/page'
import { useGiven } from './given'

/** What a run came to, in a sentence that is also read out; what kept it from being sent. */
export function Told({ of, error, children }: { of: string; error: unknown; children: string }) {
  return (
    <>
      <p className="text-quiet">{of}</p>
      <div role="status">
        <h1 className="mb-3 text-[1.5rem]">{children}</h1>
      </div>
      <Refused error={error} />
    </>
  )
}

/** The points of a run, large. */
export function Score({ score, short, passed }: { score: number; passed: boolean; short?: string }) {
  return (
    <p>
      <span className="text-[2.6rem] leading-none font-bold tabular-nums">{Math.round(score)}</span>{' '}
      <span className="text-quiet">{passed ? (short ?? t`of 100`) : t`of 100, not passed`}</span>
    </p>
  )
}

/** What no run proves. */
export const NoLicence = () => (
  <p className="mt-3 text-[0.92rem] text-quiet">{t`It shows practice. It is no licence, and proves no skill on the machine itself, no lift and no set-up.`}</p>
)

/** What comes after a run: another, or back; after a try of an exam only back to it. */
export function NextSteps({
  next,
  onNext,
  onAgain,
  onLeave,
}: {
  /** The next one, in words. */
  next: string
  onNext: () => void
  /** The same once more. */
  onAgain?: () => void
  onLeave: () => void
}) {
  if (useGiven())
    return (
      <ActionBar>
        <Button look="next" onClick={onLeave}>{t`Back to the exam`}</Button>
      </ActionBar>
    )
  return (
    <ActionBar>
      <Button look="quiet" onClick={onLeave}>{t`Leave practice`}</Button>
      {onAgain && <Button onClick={onAgain}>{t`Again the same`}</Button>}
      <Button look="next" onClick={onNext}>
        {next}
      </Button>
    </ActionBar>
  )
}
