import { Box, chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { day } from '@/shared/dates'

export function ProbeList({ probes }: { probes: Schemas['HungProbeResponse'][] }) {
  if (probes.length === 0) {
    return <p>None yet. A logger's first file names its probe.</p>
  }
  return (
    <ul>
      {probes.map((probe) => (
        <chakra.li key={probe.id} py={2} borderTop="1px solid" borderColor="line">
          <strong>{probe.name}</strong>
          <Box color="soft" fontSize="small">
            {probe.place}, since {day(probe.since)}
            {probe.by_hand ? '' : probe.checked ? ', checked' : ', not checked against a reference'}
          </Box>
        </chakra.li>
      ))}
    </ul>
  )
}
