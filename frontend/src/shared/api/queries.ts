import {
  MutationCache,
  notifyManager,
  QueryCache,
  QueryClient,
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query'
import { showAct, showProblem } from '../ui/toasts'
import { answer, api, Problem, type Schemas } from './client'
import { askedAgainMs, noteOwn } from './followed'
import { readAgain } from './readAgain'
import { sharedWithTime } from './readAt'

// Told at once, so that a part of a page never shows its own new state beside old data: by the
// default timer, the second of two quick taps was worked out from what was there before the first.
notifyManager.setScheduler(queueMicrotask)

export const queryClient = new QueryClient({
  queryCache: new QueryCache({ onError: askAgainWhoIsHere }),
  mutationCache: new MutationCache({ onError: askAgainWhoIsHere }),
  defaultOptions: {
    // Asked without a network too: then the service worker answers with what was read last.
    queries: {
      retry: 1,
      refetchInterval: askedAgainMs,
      staleTime: 5_000,
      networkMode: 'always',
      structuralSharing: sharedWithTime,
    },
    mutations: { networkMode: 'always' },
  },
})

/** Whoever was signed out elsewhere is asked to sign in again. */
export function askAgainWhoIsHere(error: unknown) {
  if (error instanceof Problem && error.status === 401) {
    queryClient.invalidateQueries({ queryKey: ['session'] })
  }
}

export const todayQuery = queryOptions({
  queryKey: ['today'],
  queryFn: () => answer(api.GET('/api/today')),
})

export const useToday = () => useQuery(todayQuery)

export const clutchQuery = (code: string) =>
  queryOptions({
    queryKey: ['clutch', code],
    queryFn: () => answer(api.GET('/api/clutches/{code}', { params: { path: { code } } })),
  })

export const useClutch = (code: string) => useQuery(clutchQuery(code))

/** Numbers of the core that screens draw and check with; they change only with the application. */
export const rulesQuery = queryOptions({
  queryKey: ['rules'],
  queryFn: () => answer(api.GET('/api/rules')),
  staleTime: Number.POSITIVE_INFINITY,
  refetchInterval: false,
})

export const useRules = () => useQuery(rulesQuery)

export const choicesQuery = queryOptions({
  queryKey: ['choices'],
  queryFn: () => answer(api.GET('/api/lay-day/choices')),
  refetchInterval: false,
})

export const useChoices = () => useQuery(choicesQuery)

export const probesQuery = queryOptions({
  queryKey: ['probes'],
  queryFn: () => answer(api.GET('/api/probes')),
})

export const useProbes = () => useQuery(probesQuery)

export const animalsQuery = queryOptions({
  queryKey: ['animals'],
  queryFn: () => answer(api.GET('/api/animals')),
})

export const useAnimals = () => useQuery(animalsQuery)

export const animalQuery = (animal: number) =>
  queryOptions({
    queryKey: ['animals', animal],
    queryFn: () => answer(api.GET('/api/animals/{animal}', { params: { path: { animal } } })),
  })

export const useAnimal = (animal: number) => useQuery(animalQuery(animal))

/** Lay windows, preparation lists, and the plan of visits. */
export const seasonQuery = queryOptions({
  queryKey: ['season'],
  queryFn: () => answer(api.GET('/api/breeding')),
})

export const useSeason = () => useQuery(seasonQuery)

export const afterLayingQuery = queryOptions({
  queryKey: ['animals', 'after laying'],
  queryFn: () => answer(api.GET('/api/animals/after-laying')),
})

export const useAfterLaying = () => useQuery(afterLayingQuery)

export const methodsQuery = queryOptions({
  queryKey: ['methods'],
  queryFn: () => answer(api.GET('/api/methods')),
})

export const useMethods = () => useQuery(methodsQuery)

export const readinessQuery = queryOptions({
  queryKey: ['readiness'],
  queryFn: () => answer(api.GET('/api/readiness')),
})

export const useReadiness = () => useQuery(readinessQuery)

/** Lay days begun and not yet recorded. */
export const layDaysQuery = queryOptions({
  queryKey: ['lay days'],
  queryFn: () => answer(api.GET('/api/lay-day-drafts')),
})

export const useLayDays = () => useQuery(layDaysQuery)

/** Lay days that came to nothing, or were put away for another reason. */
export const asideQuery = queryOptions({
  queryKey: ['lay days', 'aside'],
  queryFn: () => answer(api.GET('/api/lay-day-drafts', { params: { query: { aside: true } } })),
})

/** What may send readings. */
export const devicesQuery = queryOptions({
  queryKey: ['devices'],
  queryFn: () => answer(api.GET('/api/devices')),
})

type Act = Schemas['ActResponse']

/**
 * A mutation that records an act: afterwards every screen reads again, and what was
 * done is said with its undo. A refusal is said in words, where `onProblem` does not.
 */
export function useAct<Input, Output>(
  record: (input: Input) => Promise<Output>,
  actOf: (output: Output) => Act | null | undefined,
  onProblem: (problem: Problem) => void = (problem) => showProblem(problem.detail),
) {
  const client = useQueryClient()
  const undo = useUndo()
  return useMutation<Output, Problem, Input>({
    mutationFn: record,
    onSuccess: (output) => {
      const act = actOf(output)
      if (act) noteOwn(act.id)
      void readAgain(client)
      if (act) showAct(act.summary, () => undo.mutate(act.id))
    },
    onError: onProblem,
  })
}

export function useUndo() {
  const client = useQueryClient()
  const undo = useMutation<Act, Problem, number>({
    mutationFn: (act_id) =>
      answer(api.POST('/api/acts/{act_id}/undo', { params: { path: { act_id } } })),
    onSuccess: (act) => {
      noteOwn(act.id)
      void readAgain(client)
      showAct(act.summary, () => undo.mutate(act.id), 'Do again')
    },
    onError: (problem) => showProblem(problem.detail),
  })
  return undo
}
