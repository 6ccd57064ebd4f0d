import { photoLimit_bytes } from '@geolabe/contract'
import { Camera } from 'lucide-react'
import { useState } from 'react'
import { newId } from '../api/client'
import { queryClient } from '../api/me'
import { outbox } from '../api/outbox'
import { Refused } from '../look/page'
import { smaller } from './photo'

/** A picture added to a defect that is there already. */
export function AddPhoto({ defect }: { defect: string }) {
  const [error, setError] = useState<unknown>(null)
  const add = async (file: File | undefined) => {
    if (!file) return
    setError(null)
    try {
      if (file.size > photoLimit_bytes * 5) throw new Error('This file is too large to be a photo; choose another.')
      await outbox.send('add-photo', { defect, photo: newId() }, await smaller(file))
      void queryClient.invalidateQueries({ queryKey: ['defects', defect] })
    } catch (e) {
      setError(e)
    }
  }
  return (
    <>
      <label className="flex min-h-12 w-fit cursor-pointer items-center gap-2 rounded-lg border-2 border-edge px-4 font-semibold has-focus-visible:outline-3 has-focus-visible:outline-ink">
        <Camera aria-hidden="true" /> Add a photo
        <input type="file" accept="image/*" className="sr-only" onChange={(e) => void add(e.target.files?.[0])} />
      </label>
      <Refused error={error} />
    </>
  )
}
