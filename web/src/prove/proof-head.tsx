import { t } from '../language/t'
import { Refused } from '../look/page'
import type { useProof } from './use-proof'
import { bandHeight, VerdictBand } from './verdict-band'

const lost = new Error('Nothing here is proven: this device cannot work it out just now. Load the page again.')

/** The answer as it stands: the verdict, why there is none, or that it is being worked out. */
export function ProofHead({ proof, on, rated }: { proof: ReturnType<typeof useProof>; on?: string; rated?: string | undefined }) {
  const { heard, current } = proof
  if (proof.lost) return <Refused error={lost} />
  if (!heard)
    return (
      <p
        role="status"
        className={`${bandHeight} flex items-center rounded-xl border-2 border-line bg-sheet px-3 text-[1.3rem] text-quiet`}
      >
        {t`Working it out…`}
      </p>
    )
  const { assessment, refused } = heard.proof
  return assessment ? (
    <VerdictBand assessment={assessment} stale={!current} {...(on ? { on } : {})} rated={rated} />
  ) : (
    <Refused error={new Error(refused ?? '')} />
  )
}

/** What its record will not be worth, before it is recorded. */
export const worthOf = (verdict: string | undefined): string =>
  verdict === 'inside' || verdict === 'near' ? '' : t`Recorded only, never lifted.`
