import type { ProveRequest, Shift } from '@geolabe/contract'
import { type Case, type CheckName, type Verdict, worstVerdict } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import type { ShiftContext } from '../shift/frame'
import type { Planned } from './case-parts'
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
  const navigate = useNavigate()
  const [error, setError] = useState<unknown>(null)
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
    record: async () => {
      setError(null)
      const body: ProveRequest = { id: newId(), setup: setup.id, plan: lift, conditions }
      try {
        const s = await outbox.sendPatiently<Shift, 'prove-lift'>('prove-lift', { shift: shift.id }, body)
        if (s) putShift(shift.id, s)
        clear()
        navigate(`/shifts/${shift.id}/lift`)
      } catch (e) {
        setError(e)
      }
    },
  }
}
