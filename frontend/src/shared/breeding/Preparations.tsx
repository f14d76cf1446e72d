import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { day } from '@/shared/dates'
import { takeMoment } from '@/shared/moment/moment'
import { Tick } from '@/shared/ui/Tick'

type Dam = Schemas['DamLaySeasonResponse']

/** What has to be ready before her first egg, with dates; `dueOnly` leaves out what can wait. */
export function Preparations({ dam, dueOnly = false }: { dam: Dam; dueOnly?: boolean }) {
  const tick = useAct(
    (body: Schemas['PreparationTickRequest']) =>
      answer(api.POST('/api/breeding/preparations', { body })),
    (act) => act,
  )
  const shown = dueOnly ? dam.preparations.filter((p) => p.due) : dam.preparations
  if (shown.length === 0) return null
  return (
    <ul>
      {shown.map((line) => (
        <li key={line.task}>
          <Tick
            label={line.text}
            note={
              line.done_at
                ? `done ${day(line.done_at)}`
                : `from ${day(line.start)}, at the latest ${day(line.by)}`
            }
            checked={line.done_at !== null}
            onChange={(done) =>
              tick.mutate({ dam: dam.dam, task: line.task, done, at: takeMoment() })
            }
          />
        </li>
      ))}
    </ul>
  )
}
