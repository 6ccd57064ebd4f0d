/** A round level seen from above: the bubble stands on the high side. */
export function Bubble({
  pitch_deg,
  roll_deg,
  limit_deg,
  label,
  judged = true,
}: {
  pitch_deg: number
  roll_deg: number
  limit_deg: number
  label: string
  /** It says by its colour whether it is inside the limit. */
  judged?: boolean
}) {
  const scale = 30 / (3 * limit_deg)
  const clip = (v: number) => Math.max(-34, Math.min(34, v))
  const inside = Math.hypot(pitch_deg, roll_deg) <= limit_deg
  return (
    <svg viewBox="-44 -44 88 88" className="size-28 shrink-0" role="img" aria-label={label}>
      <circle r="42" fill="var(--water)" stroke="var(--ink)" strokeWidth="2.5" />
      <circle r={10} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M-42 0H-14M14 0H42M0-42V-14M0 14V42" stroke="var(--edge)" strokeWidth="1" />
      <circle
        cx={clip(-roll_deg * scale)}
        cy={clip(-pitch_deg * scale)}
        r="8"
        fill={judged && inside ? 'var(--inside)' : 'var(--sheet)'}
        stroke={inside || !judged ? 'var(--ink)' : 'var(--outside)'}
        strokeWidth="2.5"
      />
      {!judged && <circle cx={clip(-roll_deg * scale)} cy={clip(-pitch_deg * scale)} r="2.2" fill="var(--ink)" />}
    </svg>
  )
}
