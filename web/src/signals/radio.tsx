import type { Prompt } from '@geolabe/core'
import clsx from 'clsx'
import { useEffect } from 'react'
import { t } from '../language/t'

/** What is said on the radio for each signal: of the operator's own left and right, as whoever talks thinks of the machine. */
const spoken: Readonly<Record<Prompt['signal'], string>> = {
  attention: t`Listen`,
  hoist: t`Hoist`,
  lower: t`Lower`,
  right: t`Slew left`,
  left: t`Slew right`,
  stop: t`Stop`,
  emergency: t`Stop, stop, stop!`,
  end: t`Secured`,
  'boom-up': t`Boom up`,
  'boom-down': t`Boom down`,
  out: t`Out`,
  in: t`In`,
  slow: t`Slowly`,
  unknown: t`A bit this way`,
}

export const spokenFor = (signal: Prompt['signal']): string => spoken[signal]

/** Said aloud by a voice that the device itself has; none is fetched. */
export function useSpoken(words: string | null) {
  useEffect(() => {
    if (words === null || !('speechSynthesis' in globalThis)) return
    const own = speechSynthesis
      .getVoices()
      .find((v) => v.localService && v.lang.startsWith(document.documentElement.lang || 'en'))
    if (!own) return
    const said = new SpeechSynthesisUtterance(words)
    said.voice = own
    said.rate = 1.4
    speechSynthesis.cancel()
    speechSynthesis.speak(said)
    return () => speechSynthesis.cancel()
  }, [words])
}

/** Talked to on the radio: the words as long as they are in the ear; nothing while nobody says anything. */
export function OnRadio({ prompt: { signal, who }, calling }: { prompt: Prompt; calling: boolean }) {
  const words = calling ? spoken[signal] : null
  useSpoken(words)
  return (
    <section
      aria-label={t`On the radio`}
      className="flex w-full flex-col items-center justify-center gap-6 self-stretch text-center"
    >
      <p className="text-quiet">{t`On the radio. The load is behind the building.`}</p>
      <p
        className={clsx(
          'min-h-[1em] text-[clamp(2.4rem,9vw,5rem)] leading-none font-bold',
          who === 'other' && 'text-[clamp(1.8rem,6vw,3.2rem)] font-semibold italic',
        )}
      >
        {words}
      </p>
      <p className="min-h-8 font-semibold">{words === null ? '' : who === 'other' ? t`Somebody else` : t`Your signaller`}</p>
    </section>
  )
}
