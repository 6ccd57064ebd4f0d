import type { Case } from '@geolabe/core'
import { useNavigate } from 'react-router'
import { beginDraft } from '../api/draft'
import { t } from '../language/t'
import { Button } from '../look/button'
import { wantedFrom, wantedKey } from './wanted'

/** The same lift asked of other stands, and of the whole yard; what is planned here stays as it is. */
export function Elsewhere({ of }: { of: Case }) {
  const navigate = useNavigate()
  const wanted = wantedFrom(of)
  if (!wanted) return null
  return (
    <Button
      className="mb-2 w-full"
      onClick={() => {
        beginDraft(wantedKey(of.place.id), wanted)
        navigate(`/places/${of.place.id}?tab=which`)
      }}
    >{t`Other stands, other machines`}</Button>
  )
}
