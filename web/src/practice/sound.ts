import { useCallback, useEffect, useRef } from 'react'

/** How a rope sounds with its load so far off: silent under a third of what is allowed, its loudest at twice that. */
export function creakOf(offset_m: number, allowed_m: number): { gain: number; hz: number } {
  const share = Math.max(0, Math.min(1, (offset_m / allowed_m - 1 / 3) / (5 / 3)))
  return { gain: 0.14 * share, hz: 42 + 70 * share }
}

interface Voice {
  to: (c: { gain: number; hz: number }) => void
  end: () => void
}

/** A rope under load: a low rasp through a narrow band. */
function voiceOf(ctx: AudioContext): Voice {
  const [rasp, band, volume] = [ctx.createOscillator(), ctx.createBiquadFilter(), ctx.createGain()]
  rasp.type = 'sawtooth'
  band.type = 'bandpass'
  band.frequency.value = 340
  band.Q.value = 5
  volume.gain.value = 0
  rasp.connect(band).connect(volume).connect(ctx.destination)
  rasp.start()
  return {
    to: ({ gain, hz }) => {
      const now_s = ctx.currentTime
      volume.gain.cancelScheduledValues(now_s)
      volume.gain.setTargetAtTime(gain, now_s, 0.08)
      // Not told anew it falls silent: time stands still.
      volume.gain.setTargetAtTime(0, now_s + 0.3, 0.08)
      rasp.frequency.setTargetAtTime(hz, now_s, 0.08)
    },
    end: () => {
      rasp.stop()
      void ctx.close()
    },
  }
}

/** The rope heard while it runs, where it is wanted; everything that it tells is seen as well. */
export function useCreak(wanted: boolean, allowed_m: number): (offset_m: number) => void {
  const voice = useRef<Voice | null>(null)
  useEffect(() => {
    // Where a device has no sound there is none.
    if (!wanted || typeof AudioContext === 'undefined') return
    voice.current = voiceOf(new AudioContext())
    return () => {
      voice.current?.end()
      voice.current = null
    }
  }, [wanted])
  return useCallback((offset_m) => voice.current?.to(creakOf(offset_m, allowed_m)), [allowed_m])
}
