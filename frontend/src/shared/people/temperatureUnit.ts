import { useQueryClient } from '@tanstack/react-query'
import { api, done, Problem } from '@/shared/api/client'
import { showProblem } from '@/shared/ui/toasts'
import {
  deviceUnit,
  keepDeviceUnit,
  keepersUnit,
  keepKeepersUnit,
  type TemperatureUnit,
} from '@/shared/units'
import { forgetWhatWasRead } from './session'

/** Ways to choose what temperatures are read in; sentences of the house are then read anew. */
export function useChooseUnit() {
  const client = useQueryClient()
  const readAnew = async () => {
    await forgetWhatWasRead()
    await client.invalidateQueries()
  }
  /** For whoever is here, on every device of theirs. */
  const forKeeper = async (unit: TemperatureUnit) => {
    const before = keepersUnit()
    // Shown at once; taken back when the house does not take it.
    keepKeepersUnit(unit)
    try {
      // Whoever chooses and goes on at once has chosen: the page may be gone before the answer.
      const body = { temperature_unit: unit }
      await done(api.PUT('/api/session/preferences', { body, keepalive: true }))
    } catch (problem) {
      keepKeepersUnit(before)
      showProblem(problem instanceof Problem ? problem.detail : 'That did not work.')
      return
    }
    await readAnew()
  }
  /** For this device alone; null: as its keeper reads. */
  const forDevice = async (unit: TemperatureUnit | null) => {
    keepDeviceUnit(unit)
    await readAnew()
  }
  /** Where this device has a unit of its own, that; else its keeper's. */
  const forHere = (unit: TemperatureUnit) => (deviceUnit() ? forDevice(unit) : forKeeper(unit))
  return { forKeeper, forDevice, forHere }
}
