/** Round a point that the keyboard is at; in a group of the class `group`. */
export const FocusRing = ({ x, y, size }: { x: number; y: number; size: number }) => (
  <circle
    cx={x}
    cy={y}
    r={size * 1.5}
    fill="none"
    stroke="var(--ink)"
    strokeWidth={size * 0.16}
    strokeDasharray={`${size * 0.4} ${size * 0.3}`}
    className="opacity-0 group-focus-visible:opacity-100"
  />
)
