import { chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { temperature, useTemperatureUnit } from '@/shared/units'

export function BoxFacts({ clutch }: { clutch: Schemas['ClutchTold'] }) {
  const unit = useTemperatureUnit()
  const { box } = clutch
  const facts = [
    ['Place', `${box.cabinet}, ${box.shelf}`],
    ['Set to', temperature(box.set_point_c, unit)],
    ['Medium', box.medium],
    ['Set up with', contents(box.dry_mass_g, box.water_g)],
    ['Closing', box.closing],
    ['Probes', clutch.probes.map((p) => p.name).join(', ') || 'none: add readings'],
  ]
  return (
    <chakra.dl display="grid" gridTemplateColumns="auto 1fr" columnGap={4} rowGap={1}>
      {facts.map(([name, value]) => (
        <chakra.div key={name} display="contents">
          <chakra.dt color="soft">{name}</chakra.dt>
          <chakra.dd fontWeight={600}>{value}</chakra.dd>
        </chakra.div>
      ))}
    </chakra.dl>
  )
}

function contents(dry: number | null, water: number | null): string {
  const parts = []
  if (dry !== null) parts.push(`${dry} g dry`)
  if (water !== null) parts.push(`${water} g water`)
  return parts.join(' + ') || 'not weighed'
}
