import clsx from 'clsx'
import type { ButtonHTMLAttributes } from 'react'

type Kind = 'next' | 'plain' | 'quiet' | 'stop'

const looks: Record<Kind, string> = {
  next: 'bg-accent text-on-accent border-2 border-ink font-bold text-lg min-h-16 px-7 shadow-[0_3px_0_var(--ink)] active:translate-y-0.5 active:shadow-none disabled:bg-sunk disabled:text-quiet disabled:border-edge disabled:shadow-none',
  plain:
    'bg-sheet text-ink border-2 border-ink font-semibold min-h-12 px-4 hover:bg-sunk disabled:text-quiet disabled:border-line',
  quiet: 'text-ink underline decoration-2 underline-offset-4 decoration-edge min-h-12 px-2 hover:decoration-ink',
  stop: 'bg-outside text-on-verdict border-2 border-outside font-bold min-h-12 px-4 hover:opacity-90',
}

export function Button({ look = 'plain', className, ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Kind }) {
  return (
    <button
      type="button"
      className={clsx('rounded-lg inline-flex items-center justify-center gap-2 text-left', looks[look], className)}
      {...rest}
    />
  )
}
