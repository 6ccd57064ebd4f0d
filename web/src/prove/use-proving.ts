import type { Shift } from '@geolabe/contract'
import { type Case, type CheckName, type Verdict, worstVerdict } from '@geolabe/core'
import { useMemo, useState } from 'react'
import type { ShiftContext } from '../order/context'
import type { Planned } from './case-parts'
import { useRecordProof } from './record-proof'
import { useAdvice } from './use-advice'
import { useProof } from './use-proof'

/**
 * The proof of what is planned beside its sheets: its findings and nearest changes, the sheet that a finding is put right on, and its record.
 *
 * @param sheetOf on which sheet each check is put right
 */
export function useProving<Tab extends string>(
  { shift, file, place }: ShiftContext,
  setup: Shift['setups'][number],
  { lift, conditions }: Omit<Planned, 'setup'>,
  sheetOf: Partial<Record<CheckName, Tab>>,
  first: Tab,
  clear: () => void,
) {
  const { record: recordProof, error } = useRecordProof(shift.id, clear)
  const [tab, setTab] = useState<Tab>(first)
  const [opened, setOpened] = useState('')
  const { definition: machine, tables } = file
  const ground = useMemo(() => ({ machine, tables, place, policy: place.policy }), [machine, tables, place])
  const planned = useMemo(() => ({ setup: setup.plan, lift, conditions }), [setup.plan, lift, conditions])
  const proof = useProof(ground, planned)
  const { heard, current } = proof
  const assessment = heard?.proof.assessment ?? null
  const proved = useMemo<Case | null>(() => heard && { ...heard.on, ...heard.of }, [heard])
  const advised = useAdvice(proved, assessment, machine)
  const findings = assessment?.findings ?? []
  return {
    proof,
    assessment,
    advised,
    error,
    tab,
    setTab,
    opened,
    /** Opens a finding, with the sheet where it is put right. */
    open: (id: string) => {
      setOpened(id)
      const f = findings.find((x) => x.id === id)
      const sheet = f && sheetOf[f.check]
      if (sheet) setTab(sheet)
    },
    /** The worst that is open on a sheet. */
    openOn: (own: Tab): Verdict | null =>
      worstVerdict(
        findings.filter((f) => sheetOf[f.check] === own && f.verdict !== 'inside' && f.verdict !== 'near').map((f) => f.verdict),
      ),
    proven: assessment?.verdict === 'inside' || assessment?.verdict === 'near',
    ready: assessment !== null && current,
    record: () => recordProof({ setup: setup.id, plan: lift, conditions }),
  }
}
