import type { Need, Override } from '@geolabe/core'
import { useEffect, useState } from 'react'
import { rich } from '../language/rich'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { TextField } from '../look/field'
import { Refused } from '../look/page'
import type { Order } from './use-order'

/** An override: chosen by its purpose, begun as it is held, let go in time; words come after, never with a load up. */
export function UseOverride({ order, onDone }: { order: Order; onDone: () => void }) {
  const { file, world } = order
  const [refused, setRefused] = useState<{ of: string; needs: readonly Need[] } | null>(null)
  const [letGoAt, setLetGoAt] = useState<string | null>(null)
  const held = file.overrides.find((o) => o.id === world.override?.id)
  if (held && world.override)
    return letGoAt ? (
      <LetGo of={held} at={letGoAt} order={order} onDone={onDone} />
    ) : (
      <Held of={held} since_ms={world.override.since_ms} onLetGo={() => setLetGoAt(new Date().toISOString())} />
    )
  const begin = async (o: Override) => {
    const answer = await order.tell([{ do: 'override-begin', override: o.id }])
    setRefused('refused' in answer ? { of: o.id, needs: answer.unmet } : null)
  }
  return (
    <ul className="grid gap-4">
      {file.overrides.map((o) => (
        <li key={o.id} className="grid gap-1">
          <h3>{told(o.label)}</h3>
          <p>{rich`Allowed for one thing: ${<strong>{told(o.purpose).toLowerCase()}</strong>}. Held by hand, at most ${o.most_s} s.`}</p>
          <p className="border-l-4 border-near pl-3 font-semibold">{t`Must follow: ${told(o.follow.what).toLowerCase()}.`}</p>
          {o.stops && <p className="font-semibold text-outside">{t`Its use takes the machine out of service at once.`}</p>}
          <Button look="next" className="justify-self-start" onClick={() => void begin(o)}>{t`I hold it now`}</Button>
          {refused?.of === o.id && (
            <div role="status" className="border-l-4 border-outside pl-3">
              <p className="font-semibold">{t`Not yet: ${told(o.label)}`}</p>
              {refused.needs.map((n) => (
                <p key={n.id}>{told(n.because)}</p>
              ))}
            </div>
          )}
        </li>
      ))}
      <Refused error={order.error} />
    </ul>
  )
}

/** How long a tone is, and how high. */
const [tone_s, tone_Hz] = [0.6, 880]

/** A tone, where the device gives one: eyes are on the machine. */
function sound(): void {
  try {
    const audio = new AudioContext()
    const tone = audio.createOscillator()
    tone.frequency.value = tone_Hz
    tone.connect(audio.destination)
    tone.start()
    tone.stop(audio.currentTime + tone_s)
    tone.onended = () => void audio.close()
  } catch {
    // The ring and the word say it too.
  }
}

function Held({ of: o, since_ms, onLetGo }: { of: Override; since_ms: number; onLetGo: () => void }) {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 200)
    return () => clearInterval(timer)
  }, [])
  const left_s = Math.max(0, o.most_s - (now - since_ms) / 1000)
  const over = left_s === 0
  useEffect(() => {
    if (over) sound()
  }, [over])
  return (
    <div className="grid justify-items-center gap-3 text-center">
      <p className="font-semibold">{told(o.label)}</p>
      <svg viewBox="0 0 100 100" className="h-40 w-40" aria-hidden="true">
        <circle cx="50" cy="50" r="42" fill="none" stroke="var(--color-line)" strokeWidth="12" />
        <circle
          cx="50"
          cy="50"
          r="42"
          fill="none"
          stroke="var(--color-near)"
          strokeWidth="12"
          pathLength="1"
          strokeDasharray={`${left_s / o.most_s} 1`}
          transform="rotate(-90 50 50)"
        />
      </svg>
      <p role="timer" className={over ? 'figure text-3xl text-outside' : 'figure text-3xl'}>
        {over ? t`Let go now` : t`${Math.ceil(left_s)} s left`}
      </p>
      <Button look={over ? 'stop' : 'next'} className="min-h-16 px-8 text-lg" onClick={onLetGo}>{t`I have let go`}</Button>
    </div>
  )
}

function LetGo({ of: o, at, order, onDone }: { of: Override; at: string; order: Order; onDone: () => void }) {
  const [words, setWords] = useState('')
  const record = async () => {
    const answer = await order.tell([{ do: 'override-end', words, at }])
    if ('ok' in answer) onDone()
  }
  return (
    <div className="grid gap-3">
      <TextField label={t`What it was used for`} value={words} onChange={setWords} hint={told(o.purpose)} rows={2} />
      <p className="border-l-4 border-near pl-3 font-semibold">{t`Must follow: ${told(o.follow.what).toLowerCase()}.`}</p>
      <Refused error={order.error} />
      <Button look="next" onClick={() => void record()}>{t`Record it`}</Button>
    </div>
  )
}
