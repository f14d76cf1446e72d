import { queryOptions, useQuery, useQueryClient } from '@tanstack/react-query'
import { keepKeepersUnit } from '@/shared/units'
import { answer, api, done, type Schemas } from '../api/client'

export type Session = Schemas['SessionResponse']

const LAST = 'sandboa.session'

/**
 * Who is signed in on this device, and whether anybody has to.
 *
 * Until the house answers, whoever was here last is here: between two bars of Wi-Fi a box that is
 * open must not wait for a name. The house checks every request all the same.
 */
export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async () => {
    const session = await answer(api.GET('/api/session'))
    keepKeepersUnit(session.temperature_unit)
    localStorage.setItem(LAST, JSON.stringify(session))
    return session
  },
  placeholderData: lastHere,
  retry: false,
})

export const useSession = () => useQuery(sessionQuery)

function lastHere(): Session | undefined {
  const kept = localStorage.getItem(LAST)
  return kept ? (JSON.parse(kept) as Session) : undefined
}

/** Whether the pages may be shown: signed in, nobody has to, or the house cannot be asked. */
export function mayComeIn(session: Session | undefined): boolean {
  return !session?.sign_in || session.name !== null
}

/** Whether whoever is here may change how the house is run. */
export function mayRun(session: Session | undefined): boolean {
  return session !== undefined && (!session.sign_in || session.role === 'keeper')
}

/** Signs this device in; throws Problem when name and passphrase do not fit. */
export async function signInWith(body: { name: string; passphrase: string }): Promise<true> {
  return done(api.POST('/api/session', { body }))
}

/** After a sign-in or sign-out everything is read anew, by whoever is here now. */
export function useSessionChanged() {
  const client = useQueryClient()
  return async () => {
    localStorage.removeItem(LAST)
    await forgetWhatWasRead()
    await client.resetQueries()
  }
}

/** Sign out: pages that were read are not left behind on the device; what waits for the house is. */
export async function forgetWhatWasRead() {
  if (!('caches' in window)) return
  await Promise.all(['read last', 'pictures', 'shared photos'].map((name) => caches.delete(name)))
}
