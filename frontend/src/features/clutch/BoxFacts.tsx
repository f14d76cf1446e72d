import { Box, chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { temperature, useTemperatureUnit } from '@/shared/units'

export function BoxFacts({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const unit = useTemperatureUnit()
  const { box } = clutch
  const facts = [
    ['Place', `${box.cabinet}, ${box.shelf}`],
    ['Set to', temperature(box.set_point_c, unit)],
    ...(clutch.maternal
      ? []
      : [
          ['Medium', clutch.box_water?.medium ?? box.medium],
          ['Set up with', contents(box)],
          ['Closing', clutch.box_water?.closing ?? box.closing],
          ...(clutch.lid ? [['Lid when last seen', clutch.lid]] : []),
        ]),
    ['Probes', clutch.probes.map((p) => p.name).join(', ') || 'none: add readings'],
  ]
  return (
    <chakra.dl display="grid" gridTemplateColumns="auto 1fr" columnGap={4} rowGap={1}>
      {facts.map(([name, value]) => (
        <Box key={name} display="contents">
          <chakra.dt color="soft">{name}</chakra.dt>
          <chakra.dd fontWeight="semibold">{value}</chakra.dd>
        </Box>
      ))}
    </chakra.dl>
  )
}

function contents({ dry_mass_g, water_g, set_up_mass_g }: Schemas['BoxResponse']): string {
  const parts = []
  if (dry_mass_g !== null) parts.push(`${dry_mass_g} g dry`)
  if (water_g !== null) parts.push(`${water_g} g water`)
  if (set_up_mass_g !== null) parts.push(`${set_up_mass_g} g in all`)
  return parts.join(', ') || 'not weighed'
}
