import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { answer, api, Problem } from '@/shared/api/client'
import { layDaysQuery } from '@/shared/api/queries'
import { showProblem } from '@/shared/ui/toasts'
import { type Clash, merged } from './merge'
import type { LayDay, State, Step } from './steps'

/** Tries again while the house cannot be reached: what was tapped is not lost. */
const RETRIES = 6
/** The clutch is recorded: nothing of its lay day can be saved any more. */
const GONE = 410

/** What another device said otherwise, what it said of that, and what it said besides, in words. */
export type Clashing = { clashes: Clash[]; there: Partial<State>; taken: string[] }

const clashKey = (id: number) => ['lay day clashes', id]

/**
 * A lay day on the server: `change` and `keep` show at once and save in order, one after the other.
 *
 * Every change is put onto what the house has by then: where another device went on meanwhile,
 * what each of the two changed is kept, and what both changed differently is told.
 */
export function useLayDay(id: number) {
  const client = useQueryClient()
  const key = ['lay day', id]
  const told = useRef<LayDay | null>(null)
  const overtaken = useRef(false)
  const read = async () => {
    const path = { lay_day: id }
    const answered = await answer(api.GET('/api/lay-day-drafts/{lay_day}', { params: { path } }))
    if (!told.current || answered.revision >= told.current.revision) told.current = answered
    return answered
  }
  const query = useQuery({
    queryKey: key,
    queryFn: async () => {
      const answered = await read()
      // What was tapped while this was on its way is newer than the answer.
      const now = client.getQueryData<LayDay>(key)
      const newer = client.isMutating({ mutationKey: key }) > 0
      return now && (newer || now.revision > answered.revision) ? now : answered
    },
    refetchInterval: false,
  })
  const save = useMutation<LayDay, Problem, { step: Step; before: State; after: State }>({
    mutationKey: key,
    scope: { id: `lay-day-${id}` },
    networkMode: 'always',
    retry: (failures, problem) => [0, 409].includes(problem.status) && failures < RETRIES,
    retryDelay: (failures, problem) => (problem.status === 409 ? 0 : 1_000 * 2 ** failures),
    mutationFn: async ({ step, before, after }) => {
      const base = told.current ?? (await read())
      const { state, clashes, taken } = merged(before, after, base.state)
      try {
        const saved = await answer(
          api.PUT('/api/lay-day-drafts/{lay_day}', {
            params: { path: { lay_day: id } },
            body: { revision: base.revision, step, state },
          }),
        )
        told.current = saved
        const news = overtaken.current ? taken : []
        overtaken.current = false
        if (clashes.length + news.length) {
          // Told until it was seen, from however many saves it comes.
          client.setQueryData<Clashing | null>(clashKey(id), (known) => ({
            clashes: [...(known?.clashes ?? []), ...clashes],
            taken: [...(known?.taken ?? []), ...news],
            there: {
              ...known?.there,
              ...Object.fromEntries(clashes.map(({ key }) => [key, base.state[key]])),
            },
          }))
        }
        return saved
      } catch (error) {
        // Another device was faster: put it onto what the house has now.
        if (error instanceof Problem && error.status === 409) {
          overtaken.current = true
          if ((await read()).clutch) throw new Problem(error.detail, GONE, error.fields)
        }
        throw error
      }
    },
    onSuccess: (saved) => {
      // What was changed while this was on its way stays on screen until it is saved itself.
      const more = client.isMutating({ mutationKey: key }) > 1
      client.setQueryData<LayDay>(key, (now) =>
        now && more
          ? { ...saved, state: merged(saved.state, now.state, saved.state).state }
          : saved,
      )
      client.invalidateQueries({ queryKey: layDaysQuery.queryKey })
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
    const after = { ...now.state, ...changed }
    client.setQueryData<LayDay>(key, { ...now, state: after })
    return save.mutateAsync({ step: step ?? now.step, before: now.state, after })
  }
  const change = (changed: Partial<State>, step?: Step) => {
    // A refusal is said by the mutation itself.
    keep(changed, step).catch(() => {})
  }
  return { day: query.data, problem: query.error?.message, change, keep }
}

/** What another device said otherwise; null when nothing, or when it was seen. */
export function useClashes(id: number): [Clashing | null, () => void] {
  const client = useQueryClient()
  const held = useQuery<Clashing | null>({
    queryKey: clashKey(id),
    queryFn: () => null,
    initialData: null,
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: false,
  })
  return [held.data, () => void client.setQueryData(clashKey(id), null)]
}
