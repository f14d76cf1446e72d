import { Stack } from '@chakra-ui/react'
import { Choices } from '@/shared/ui/Choices'
import { useDeviceUnit, useKeepersUnit } from '@/shared/units'
import { useChooseUnit } from './temperatureUnit'

const KEEPERS = 'keepers'

/** What temperatures are read in: by whoever is here, and by this device where it differs. */
export function Temperatures() {
  const device = useDeviceUnit()
  const keeper = useKeepersUnit()
  const { forKeeper, forDevice } = useChooseUnit()
  return (
    <Stack gap={4}>
      <Choices
        legend="Everywhere: screens, calendar, prints"
        columns={2}
        value={keeper}
        onChoose={forKeeper}
        choices={[
          { value: 'C', label: '°C' },
          { value: 'F', label: '°F' },
        ]}
      />
      <Choices
        legend="On this device"
        columns={3}
        value={device ?? KEEPERS}
        onChoose={(choice) => forDevice(choice === KEEPERS ? null : choice)}
        choices={[
          { value: KEEPERS, label: 'the same' },
          { value: 'C', label: '°C' },
          { value: 'F', label: '°F' },
        ]}
      />
    </Stack>
  )
}
