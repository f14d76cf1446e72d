import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, done, Problem, type Schemas } from '@/shared/api/client'
import { store } from '@/shared/offline/store'

export type Look = Schemas['LookResponse']
export type Case = Schemas['CaseResponse']
export type Told = Schemas['ToldResponse']
export type Judgement = Schemas['JudgementRequest']
export type Progress = Schemas['ProgressResponse']

export const practiceQuery = queryOptions({
  queryKey: ['practice'],
  queryFn: () => answer(api.GET('/api/practice')),
})

export const lookQuery = (id: number) =>
  queryOptions({
    queryKey: ['practice', 'looks', id],
    queryFn: () => answer(api.GET('/api/practice/looks/{id}', { params: { path: { id } } })),
    staleTime: Number.POSITIVE_INFINITY,
  })

export const useProgress = (deck: string | null) =>
  useQuery({
    queryKey: ['practice', 'progress', deck],
    queryFn: () =>
      answer(api.GET('/api/practice/progress', { params: { query: deck ? { deck } : {} } })),
  })

export function useBegin(onBegun: (look: Look) => void) {
  const client = useQueryClient()
  return useMutation<Look, Problem, Schemas['LookBeginRequest']>({
    mutationFn: (body) => answer(api.POST('/api/practice/looks', { body })),
    onSuccess: (look) => {
      client.setQueryData(lookQuery(look.id).queryKey, look)
      client.invalidateQueries({ queryKey: practiceQuery.queryKey, exact: true })
      onBegun(look)
    },
  })
}

const send = (id: number, egg: number, body: Judgement) =>
  answer(
    api.POST('/api/practice/looks/{id}/eggs/{egg}/judgement', {
      params: { path: { id, egg } },
      body,
    }),
  )

/** Judges an egg: its truth, or null where the house is out of reach and it is kept here. */
export function useJudge(id: number) {
  const tell = useTell(id)
  return useMutation<Told | null, Problem, { egg: number; said: Judgement }>({
    mutationFn: async ({ egg, said }) => {
      try {
        return await send(id, egg, said)
      } catch (error) {
        if (!(error instanceof Problem) || error.status !== 0) throw error
        await store.judgements.put({ session: id, egg, said })
        return null
      }
    },
    onSuccess: (told) => told && tell(told),
  })
}

/** Asks for the truths of what is kept on this device; throws while the house is out of reach. */
export function useAskAgain(id: number) {
  const tell = useTell(id)
  return async () => {
    for (const { egg, said } of await store.judgements.where({ session: id }).toArray()) {
      try {
        tell(await send(id, egg, said))
      } catch (error) {
        // Still out of reach. What was refused was judged elsewhere meanwhile.
        if (error instanceof Problem && error.status === 0) throw error
      }
      await store.judgements.delete([id, egg])
    }
  }
}

function useTell(id: number) {
  const client = useQueryClient()
  return (told: Told) => {
    client.setQueryData(
      lookQuery(id).queryKey,
      (look) =>
        look && { ...look, told: [...look.told.filter(({ egg }) => egg !== told.egg), told] },
    )
    client.invalidateQueries({ queryKey: practiceQuery.queryKey, exact: true })
    client.invalidateQueries({ queryKey: ['practice', 'progress'] })
  }
}

export function useForget(onDone: () => void) {
  const client = useQueryClient()
  return useMutation<true, Problem>({
    mutationFn: () => done(api.DELETE('/api/practice')),
    onSuccess: async () => {
      await store.judgements.clear()
      client.removeQueries({ queryKey: ['practice', 'looks'] })
      await client.invalidateQueries({ queryKey: ['practice'] })
      onDone()
    },
  })
}
