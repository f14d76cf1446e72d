import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { takeMoment } from '@/shared/moment/moment'

/** Records that a box was put on another shelf, of this or another cabinet. */
export function useMoveBox() {
  return useAct(
    ({ name, cabinet, shelf }: { name: string; cabinet: string; shelf: string }) =>
      answer(
        api.POST('/api/boxes/{name}/moves', {
          params: { path: { name } },
          body: { cabinet, shelf, at: takeMoment() },
        }),
      ),
    (act) => act,
  )
}
