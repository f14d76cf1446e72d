import { chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { day } from '@/shared/dates'

export function ProbeList({ probes }: { probes: Schemas['HungProbeResponse'][] }) {
  if (probes.length === 0) {
    return <p>None yet. A logger's first file names its probe.</p>
  }
  return (
    <chakra.ul listStyleType="none">
      {probes.map((probe) => (
        <chakra.li key={probe.id} py={2} borderTop="1px solid" borderColor="line">
          <strong>{probe.name}</strong>
          <chakra.div color="soft" fontSize="0.94em">
            {probe.place}, since {day(probe.since)}
            {probe.by_hand ? '' : probe.checked ? ', checked' : ', not checked against a reference'}
          </chakra.div>
        </chakra.li>
      ))}
    </chakra.ul>
  )
}
