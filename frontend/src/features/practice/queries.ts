import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, done, Problem, type Schemas } from '@/shared/api/client'
import { store } from '@/shared/offline/store'

export type Look = Schemas['LookResponse']
export type Case = Schemas['CaseResponse']
export type Told = Schemas['ToldResponse']
export type Judgement = Schemas['JudgementRequest']
export type KeptSeason = Schemas['KeptSeasonResponse']
export type KeptBox = Schemas['KeptBoxResponse']
export type KeptEgg = Schemas['KeptEggResponse']
export type Telling = Schemas['TellingResponse']
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

/** Two people of one device may have sessions of one number: not begun at one moment. */
export const keptAs = ({ id, began_at }: Look): string => `${id} of ${began_at}`

/** Judges an egg: its truth, or null where the house is out of reach and it is kept here. */
export function useJudge(look: Look) {
  const { id } = look
  const tell = useTell(id)
  return useMutation<Told | null, Problem, { egg: number; said: Judgement }>({
    mutationFn: async ({ egg, said }) => {
      try {
        return await send(id, egg, said)
      } catch (error) {
        if (!(error instanceof Problem) || error.status !== 0) throw error
        await store.judgements.put({ session: keptAs(look), egg, said })
        return null
      }
    },
    onSuccess: (told) => told && tell(told),
  })
}

/** Asks for the truths of what is kept on this device; throws while the house is out of reach. */
export function useAskAgain(look: Look) {
  const { id } = look
  const session = keptAs(look)
  const tell = useTell(id)
  return async () => {
    for (const { egg, said } of await store.judgements.where({ session }).toArray()) {
      try {
        tell(await send(id, egg, said))
      } catch (error) {
        // Still out of reach. What was refused was judged elsewhere meanwhile.
        if (error instanceof Problem && error.status === 0) throw error
      }
      await store.judgements.delete([session, egg])
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

export const seasonQuery = (id: number) =>
  queryOptions({
    queryKey: ['practice', 'seasons', id],
    queryFn: () => answer(api.GET('/api/practice/seasons/{id}', { params: { path: { id } } })),
  })

export const useTelling = (id: number, over: boolean) =>
  useQuery({
    queryKey: ['practice', 'seasons', id, 'telling'],
    queryFn: () =>
      answer(api.GET('/api/practice/seasons/{id}/telling', { params: { path: { id } } })),
    enabled: over,
    staleTime: Number.POSITIVE_INFINITY,
  })

export function useBeginSeason(onBegun: (season: KeptSeason) => void) {
  const client = useQueryClient()
  return useMutation<KeptSeason, Problem, Schemas['SeasonBeginRequest']>({
    mutationFn: (body) => answer(api.POST('/api/practice/seasons', { body })),
    onSuccess: (season) => {
      client.setQueryData(seasonQuery(season.id).queryKey, season)
      client.invalidateQueries({ queryKey: practiceQuery.queryKey, exact: true })
      onBegun(season)
    },
  })
}

/** Something done on a day, or days that pass; the season as it then stands. */
export type Move = { days: number } | { what: string; box?: number; egg?: number; water_g?: number }

export function useKeep({ id }: { id: number }) {
  const client = useQueryClient()
  return useMutation<KeptSeason, Problem, Move>({
    mutationFn: (move) => {
      // As it stands now, not as it stood when the button was drawn.
      const now = client.getQueryData(seasonQuery(id).queryKey)
      const params = { path: { id } }
      const revision = now?.revision ?? 0
      if ('days' in move) {
        const body = { revision, days: move.days }
        return answer(api.POST('/api/practice/seasons/{id}/days', { params, body }))
      }
      const body = { revision, day: now?.day ?? 0, water_g: 0, box: null, egg: null, ...move }
      return answer(api.POST('/api/practice/seasons/{id}/deeds', { params, body }))
    },
    // One after another: each rests on what the one before left.
    scope: { id: `season ${id}` },
    onSuccess: (season) => client.setQueryData(seasonQuery(id).queryKey, season),
    onError: (problem) => {
      if (problem.status === 409) client.invalidateQueries({ queryKey: seasonQuery(id).queryKey })
    },
  })
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
