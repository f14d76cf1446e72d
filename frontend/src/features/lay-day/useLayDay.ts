import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Problem } from '@/shared/api/client'
import { showProblem } from '@/shared/ui/toaster'
import type { LayDay, State, Step } from './steps'

/** Tries again while the house cannot be reached: what was tapped is not lost. */
const RETRIES = 6

/**
 * A lay day on the server: `change` and `keep` show at once and saves in order, one after the
 * other. When another device was faster, its state is shown instead, and said.
 */
export function useLayDay(id: number) {
  const client = useQueryClient()
  const key = ['lay day', id]
  const query = useQuery({
    queryKey: key,
    queryFn: async () => {
      const path = { lay_day: id }
      const told = await answer(api.GET('/api/lay-days/{lay_day}', { params: { path } }))
      // What was tapped while this was on its way is newer than the answer.
      const now = client.getQueryData<LayDay>(key)
      const newer = client.isMutating({ mutationKey: key }) > 0
      return now && (newer || now.revision > told.revision) ? now : told
    },
    refetchInterval: false,
  })
  const save = useMutation<LayDay, Problem, { step: Step; state: State }>({
    mutationKey: key,
    scope: { id: `lay-day-${id}` },
    networkMode: 'always',
    retry: (failures, problem) => problem.status === 0 && failures < RETRIES,
    mutationFn: ({ step, state }) => {
      const revision = client.getQueryData<LayDay>(key)?.revision ?? 1
      return answer(
        api.PUT('/api/lay-days/{lay_day}', {
          params: { path: { lay_day: id } },
          body: { revision, step, state },
        }),
      )
    },
    onSuccess: (told) => {
      // What was changed while this was on its way stays on screen until it is saved itself.
      const more = client.isMutating({ mutationKey: key }) > 1
      client.setQueryData<LayDay>(key, (now) =>
        now && more ? { ...told, state: now.state } : told,
      )
      client.invalidateQueries({ queryKey: ['lay days'] })
    },
    onError: (problem) => {
      showProblem(problem.detail)
      if (problem.status !== 0) client.invalidateQueries({ queryKey: key })
    },
  })
  /** Shows a change at once and saves it; settles when it is kept. */
  const keep = (changed: Partial<State>, step?: Step) => {
    const now = client.getQueryData<LayDay>(key)
    if (!now) return Promise.reject(new Error('no lay day'))
    const state = { ...now.state, ...changed }
    client.setQueryData<LayDay>(key, { ...now, state })
    return save.mutateAsync({ step: step ?? now.step, state })
  }
  const change = (changed: Partial<State>, step?: Step) => {
    // A refusal is said by the mutation itself.
    keep(changed, step).catch(() => {})
  }
  return { day: query.data, problem: query.error?.message, change, keep }
}
