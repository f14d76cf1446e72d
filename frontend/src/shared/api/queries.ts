import {
  MutationCache,
  notifyManager,
  QueryCache,
  QueryClient,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query'
import { showAct, showProblem } from '../ui/toaster'
import { answer, api, Problem, type Schemas } from './client'
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
      refetchInterval: 60_000,
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

export function useToday() {
  return useQuery({ queryKey: ['today'], queryFn: () => answer(api.GET('/api/today')) })
}

export function useClutch(code: string) {
  return useQuery({
    queryKey: ['clutch', code],
    queryFn: () => answer(api.GET('/api/clutches/{code}', { params: { path: { code } } })),
  })
}

/** Numbers of the core that screens draw and check with; they change only with the application. */
export function useRules() {
  return useQuery({
    queryKey: ['rules'],
    queryFn: () => answer(api.GET('/api/rules')),
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: false,
  })
}

/** What was recorded last in the whole house. */
export function useHouseLog() {
  return useQuery({ queryKey: ['acts'], queryFn: () => answer(api.GET('/api/acts')) })
}

export function useChoices() {
  return useQuery({
    queryKey: ['choices'],
    queryFn: () => answer(api.GET('/api/lay-day/choices')),
    refetchInterval: false,
  })
}

export function useProbes() {
  return useQuery({ queryKey: ['probes'], queryFn: () => answer(api.GET('/api/probes')) })
}

export function useAnimals() {
  return useQuery({ queryKey: ['animals'], queryFn: () => answer(api.GET('/api/animals')) })
}

export function useAnimal(animal: number) {
  return useQuery({
    queryKey: ['animals', animal],
    queryFn: () => answer(api.GET('/api/animals/{animal}', { params: { path: { animal } } })),
  })
}

/** Lay windows, preparation lists, and the plan of visits. */
export function useSeason() {
  return useQuery({ queryKey: ['season'], queryFn: () => answer(api.GET('/api/breeding')) })
}

export function useAfterLaying() {
  return useQuery({
    queryKey: ['animals', 'after laying'],
    queryFn: () => answer(api.GET('/api/animals/after-laying')),
  })
}

export function useMethods() {
  return useQuery({ queryKey: ['methods'], queryFn: () => answer(api.GET('/api/methods')) })
}

export function useReadiness() {
  return useQuery({
    queryKey: ['readiness'],
    queryFn: () => answer(api.GET('/api/readiness')),
  })
}

/** Lay days begun and not yet recorded. */
export function useLayDays() {
  return useQuery({ queryKey: ['lay days'], queryFn: () => answer(api.GET('/api/lay-day-drafts')) })
}

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
      void readAgain(client)
      const act = actOf(output)
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
      void readAgain(client)
      showAct(act.summary, () => undo.mutate(act.id), 'Do again')
    },
    onError: (problem) => showProblem(problem.detail),
  })
  return undo
}
