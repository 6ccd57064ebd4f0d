import { photoLimit_bytes } from '@geolabe/contract'
import { Camera } from 'lucide-react'
import { useState } from 'react'
import { newId } from '../api/client'
import { queryClient } from '../api/me'
import { outbox } from '../api/outbox'
import { t } from '../language/t'
import { FileButton } from '../look/file-button'
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
      <FileButton accept="image/*" onFile={(f) => void add(f)}>
        <Camera aria-hidden="true" /> {t`Add a photo`}
      </FileButton>
      <Refused error={error} />
    </>
  )
}
