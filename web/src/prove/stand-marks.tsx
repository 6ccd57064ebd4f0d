import type { Assessment, Crew } from '@geolabe/core'
import { verdictInk } from '../instruments/verdict-ink'
import { roleNames } from './crew-panel'

/** Whoever stands by a machine while it carries, from above in metres, x to the right: in the ink of what was found where they stand. */
export function StandMarks({
  stands,
  assessment,
  text,
}: {
  stands: NonNullable<Crew['stands']>
  assessment: Pick<Assessment, 'findings'> | null
  text: number
}) {
  return stands.map((s, i) => {
    const f = assessment?.findings.find((x) => x.id === `people:stand-${i + 1}`)
    return (
      // biome-ignore lint/suspicious/noArrayIndexKey: told apart by their place in the list alone
      <g key={i} transform={`translate(${s.x_m} ${-s.y_m})`}>
        <circle r={text * 0.62} fill={f ? verdictInk[f.verdict] : 'var(--quiet)'} stroke="var(--ink)" strokeWidth={text / 7} />
        <text y={text * 0.3} textAnchor="middle" fontSize={text * 0.8} fontWeight="700" fill="var(--paper)">
          {roleNames[s.role].slice(0, 2)}
        </text>
      </g>
    )
  })
}
