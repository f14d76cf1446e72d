import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'

/** Records that a box was put on another shelf, of this or another cabinet. */
export function useMoveBox() {
  return useAct(
    ({ code, cabinet, shelf }: { code: string; cabinet: string; shelf: string }) =>
      answer(
        api.POST('/api/clutches/{code}/moves', {
          params: { path: { code } },
          body: { cabinet, shelf },
        }),
      ),
    (act) => act,
  )
}
