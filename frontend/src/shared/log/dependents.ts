import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

/** Sentences on what was recorded later and rests on an act; none where nothing does. */
export async function askDependents(act: number): Promise<string[]> {
  const path = { act_id: act }
  return (await answer(api.GET('/api/acts/{act_id}/dependents', { params: { path } }))).sentences
}

export const dependentsQuery = (act: number) =>
  queryOptions({ queryKey: ['dependents', act], queryFn: () => askDependents(act) })
