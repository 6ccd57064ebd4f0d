import type { CertificateLine } from '@geolabe/contract'
import { useState } from 'react'
import { useMe } from '../api/me'
import { useCertificates, useInstallation } from '../api/queries'
import { plural, t } from '../language/t'
import { FileButton } from '../look/file-button'
import { Loaded, Sheet, Title } from '../look/page'
import { date } from '../look/when'
import { certificateWords, examWords } from './exam-words'
import { type Checked, checkCertificate } from './genuine'
import { NoLicence } from './score'

/** Certificates of practice: one's own, those one has issued, all of them for those who decide; and one handed over, checked without a network. */
export function Certificates() {
  const certificates = useCertificates()
  return (
    <>
      <Title below={t`What was shown in practice, and until when it counts.`}>{t`Certificates of practice`}</Title>
      <div className="grid items-start gap-4 pb-6 md:grid-cols-[3fr_2fr]">
        <Loaded query={certificates}>
          {({ certificates: all }) => (
            <Sheet>
              {all.length === 0 ? (
                <p className="text-quiet">{t`None has been issued. An assessor sets the exam.`}</p>
              ) : (
                <ul className="grid gap-3">
                  {all.map((c) => (
                    <Line key={c.file.id} line={c} />
                  ))}
                </ul>
              )}
              <NoLicence />
            </Sheet>
          )}
        </Loaded>
        <Check />
      </div>
    </>
  )
}

const way = 'inline-flex min-h-12 items-center font-semibold underline underline-offset-4'

function Line({ line: { file: c, state } }: { line: CertificateLine }) {
  const me = useMe().data
  const at = `/api/practice/certificates/${c.id}/certificate`
  return (
    <li className={`border-l-4 pl-3 ${state === 'in-date' ? 'border-line' : 'border-outside'}`}>
      <p className="text-[1.1rem] font-bold">
        {c.person.id === me?.id ? '' : `${c.person.name}: `}
        {examWords(c)}
      </p>
      <p>
        {t`Level ${Math.round(100 * c.level)}, ${plural(c.runs.length, { one: '# try passed', other: '# tries passed' })} of ${c.triesMade}, seen by ${c.assessor.name}.`}
      </p>
      <p className={state === 'in-date' ? 'text-quiet' : 'font-semibold text-outside'}>
        {t`Valid until ${date(c.validUntil)}: ${certificateWords[state]}.`}
      </p>
      <p className="flex flex-wrap gap-x-5">
        <a className={way} href={`${at}.pdf`} target="_blank" rel="noreferrer">{t`To print`}</a>
        <a className={way} href={`${at}.json`} download>{t`As a file`}</a>
      </p>
    </li>
  )
}

const foundWords: Record<Checked['is'], string> = {
  genuine: t`Genuine: as this installation signed it.`,
  altered: t`Altered: it is not what was signed.`,
  elsewhere: t`Signed by another installation, or by nobody known here.`,
  none: t`This is no certificate of practice.`,
  cannot: t`This browser cannot check signatures. Use a newer one.`,
}

/** A file handed over: is it what was signed? */
function Check() {
  const installation = useInstallation()
  const [found, setFound] = useState<Checked | null>(null)
  const check = async (file: File) => {
    const key = installation.data?.publicKey
    if (key) setFound(await checkCertificate(await file.text(), key))
  }
  const c = found?.certificate
  return (
    <Sheet title={t`Check a certificate`}>
      <p className="mb-3 text-quiet">{t`From its file, on this device; no network is needed.`}</p>
      {installation.data ? (
        <FileButton accept=".json,application/json" onFile={(f) => void check(f)}>{t`Choose its file`}</FileButton>
      ) : (
        <p className="font-semibold">{t`This device does not know the key of its installation yet. Come back with a network once.`}</p>
      )}
      <div role="status" className="mt-3">
        {found && (
          <>
            <p className={`text-[1.2rem] font-bold ${found.is === 'genuine' ? '' : 'text-outside'}`}>{foundWords[found.is]}</p>
            {c && found.is === 'genuine' && (
              <p className="mt-1">
                {t`${c.person.name}, ${examWords(c)}, level ${Math.round(100 * c.level)}. Valid until ${date(c.validUntil)}.`}
              </p>
            )}
          </>
        )}
      </div>
    </Sheet>
  )
}
