import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { LeaveForm } from '@/shared/animals/LeaveForm'
import type { HatchlingLine } from '@/shared/hatchlings/queries'
import { toggled } from '@/shared/toggled'
import { Chips } from '@/shared/ui/Chips'

/** Several of a clutch that left alike: all, less those tapped off. */
export function TheyLeft({ lines, onDone }: { lines: HatchlingLine[]; onDone: () => void }) {
  const [on, setOn] = useState(() => lines.map((line) => line.short_name))
  const chosen = lines.filter((line) => on.includes(line.short_name))
  return (
    <Box mb={5}>
      <Chips
        legend="All but those you tap off"
        chips={lines.map(({ short_name }) => ({ value: short_name, label: short_name }))}
        on={on}
        onToggle={(name) => setOn(toggled(on, name))}
      />
      <LeaveForm of={{ hatchlings: chosen.map(({ id }) => id) }} onDone={onDone} />
    </Box>
  )
}
