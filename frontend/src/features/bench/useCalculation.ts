import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Problem } from '@/shared/api/client'

/** Asks the house to work something out while it is typed; `asked` null waits for more. */
export function useCalculation<Asked, Told>(
  name: string,
  asked: Asked | null,
  calculate: (asked: Asked) => Promise<Told>,
) {
  return useQuery<Told, Problem>({
    queryKey: ['bench', name, asked],
    enabled: asked !== null,
    retry: false,
    refetchInterval: false,
    placeholderData: keepPreviousData,
    queryFn: () => calculate(asked as Asked),
  })
}
