import { X } from 'lucide-react'
import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'
import { t } from '../language/t'

export function Dialog({
  open,
  onClose,
  title,
  children,
}: {
  open: boolean
  onClose: () => void
  title: string
  children: ReactNode
}) {
  return (
    <Radix.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-[#0b1524]/60" />
        <Radix.Content
          aria-describedby={undefined}
          className="fixed z-50 max-h-[92dvh] w-[min(40rem,100vw)] overflow-y-auto border-2 border-ink bg-paper p-5 pb-7 max-sm:inset-x-0 max-sm:bottom-0 max-sm:rounded-t-2xl sm:top-1/2 sm:left-1/2 sm:-translate-x-1/2 sm:-translate-y-1/2 sm:rounded-2xl"
        >
          <div className="mb-4 flex items-start justify-between gap-4">
            <Radix.Title className="text-xl font-bold">{title}</Radix.Title>
            <Radix.Close className="-mt-2 -mr-2 grid size-12 place-items-center rounded-lg" aria-label={t`Close`}>
              <X aria-hidden="true" />
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
