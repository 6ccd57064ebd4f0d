/** A point of a path with its letter, as it is drawn from above and from the side. */
export const PointMark = ({ letter, x, y, size }: { letter: string; x: number; y: number; size: number }) => (
  <>
    <circle cx={x} cy={y} r={size} fill="var(--accent)" stroke="var(--ink)" strokeWidth={size * 0.2} />
    <text
      x={x}
      y={y}
      fontSize={size * 1.15}
      fontWeight="750"
      textAnchor="middle"
      dominantBaseline="central"
      fill="var(--on-accent)"
    >
      {letter}
    </text>
  </>
)
