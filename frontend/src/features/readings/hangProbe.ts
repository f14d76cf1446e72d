import { answer, api } from '@/shared/api/client'
import { fromInputMoment } from '@/shared/dates'
import type { Place } from './places'
import type { SensorValues } from './SensorProbe'

/** Hangs the new probe that a form tells of; returns its id. Rejects with the house's problem. */
export async function hangProbe(values: SensorValues, places: Place[]): Promise<number> {
  const { id } = await answer(
    api.POST('/api/probes', {
      body: {
        name: values.name,
        place: places.find((place) => place.value === values.place)?.asked ?? {},
        since: fromInputMoment(values.since),
        checked: values.checked === 'yes',
      },
    }),
  )
  return id
}
