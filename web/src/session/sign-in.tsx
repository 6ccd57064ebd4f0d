import { type DemoPeople, type Me, type SignInRequest, signInRequest } from '@geolabe/contract'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import { call, get } from '../api/client'
import { become } from '../api/me'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Form, TextEntry, useEntry } from '../look/form'
import { Refused } from '../look/page'
import { Wordmark } from './mark'

const remembered = () => localStorage.getItem('geolabe.organisation') ?? ''

export function SignIn() {
  const demo = useQuery({ queryKey: ['demo'], queryFn: () => get<DemoPeople>('/demo') })
  const form = useEntry(signInRequest, { organisation: remembered(), badge: '', pin: '' })
  const { control, setValue } = form
  const signIn = useMutation({
    mutationFn: (body: SignInRequest) => call<Me>({ method: 'POST', path: '/session', body }),
    networkMode: 'always',
    onSuccess: (me) => {
      localStorage.setItem('geolabe.organisation', me.organisation.id)
      become(me)
    },
  })
  // The demo's first yard, until somebody names another.
  const usual = demo.data?.people[0]?.organisation
  useEffect(() => {
    if (usual && !form.getValues('organisation')) setValue('organisation', usual)
  }, [usual, form, setValue])
  const organisations = [...new Set(demo.data?.people.map((p) => p.organisationName))]
  return (
    <main className="mx-auto grid min-h-dvh max-w-5xl content-center gap-8 p-5 md:grid-cols-[1fr_1.15fr] md:gap-12">
      <div>
        <p className="mb-8">
          <Wordmark />
        </p>
        <h1 className="mb-6 text-[2rem]">{t`Sign on`}</h1>
        <Form onSubmit={form.handleSubmit((body) => signIn.mutate(body))} className="grid gap-4">
          <TextEntry control={control} name="organisation" label={t`Yard`} />
          <TextEntry control={control} name="badge" label={t`Badge`} inputMode="numeric" autoFocus />
          <TextEntry control={control} name="pin" label={t`PIN`} type="password" inputMode="numeric" />
          <Refused error={signIn.error} />
          <Button
            look="next"
            type="submit"
            className="justify-center"
            disabled={signIn.isPending || (demo.isLoading && !form.watch('organisation'))}
          >{t`Sign on`}</Button>
        </Form>
        <p className="mt-6 text-[0.92rem] text-quiet">{t`An aid. The machine’s own table, plate and manual, local law, and a competent, licensed person decide.`}</p>
      </div>
      {organisations.length > 0 && (
        <section aria-label={t`Demo people`} className="self-center rounded-xl border border-line bg-sheet p-4">
          <h2>{t`Demo world`}</h2>
          <p className="mb-2 text-quiet">{t`Choose whom to be; badge and PIN fill themselves in.`}</p>
          {organisations.map((name) => (
            <div key={name} className="mt-3">
              <h3 className="text-quiet">{name}</h3>
              <ul>
                {demo.data?.people
                  .filter((p) => p.organisationName === name)
                  .map((p) => (
                    <li key={`${p.organisation}${p.badge}`} className="border-t border-line first:border-t-0">
                      <button
                        type="button"
                        className="grid min-h-12 w-full grid-cols-[1fr_auto] items-center gap-3 py-1.5 text-left hover:bg-sunk"
                        onClick={() => {
                          form.reset({ organisation: p.organisation, badge: p.badge, pin: p.pin })
                        }}
                      >
                        <span>
                          <span className="font-semibold">{p.name}</span>{' '}
                          <span className="block text-[0.92rem] text-quiet">{p.note}</span>
                        </span>
                        <span className="figure text-[0.95rem] text-quiet">
                          {p.badge} · {p.pin}
                        </span>
                      </button>
                    </li>
                  ))}
              </ul>
            </div>
          ))}
        </section>
      )}
    </main>
  )
}
