import { useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, done, type Schemas } from '../api/client'

type Session = Schemas['SessionTold']

/** Who is signed in on this device, and whether anybody has to. */
export function useSession() {
  return useQuery({
    queryKey: ['session'],
    queryFn: () => answer(api.GET('/api/session')),
    // Out of reach of the house nobody is asked: what was read last is on the device.
    retry: false,
  })
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
    await forgetWhatWasRead()
    await client.resetQueries()
  }
}

/** Sign out: pages that were read are not left behind on the device; what waits for the house is. */
async function forgetWhatWasRead() {
  if (!('caches' in window)) return
  await Promise.all(['read last', 'pictures'].map((name) => caches.delete(name)))
}
