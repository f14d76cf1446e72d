import type { Schemas } from '@/shared/api/client'
import { Facts } from '@/shared/ui/Facts'
import { temperature, useTemperatureUnit } from '@/shared/units'

export function BoxFacts({
  clutch,
  box,
}: {
  clutch: Schemas['ClutchResponse']
  box: Schemas['BoxResponse']
}) {
  const unit = useTemperatureUnit()
  const facts = [
    ['Place', `${box.cabinet}, ${box.shelf}`],
    ...(box.set_point_c === null ? [] : [['Set to', temperature(box.set_point_c, unit)]]),
    ...(box.shared_with.length ? [['With eggs of', box.shared_with.join(', ')]] : []),
    ...(clutch.maternal
      ? []
      : [
          ['Medium', box.box_water?.medium ?? box.medium],
          ['Set up with', contents(box)],
          ['Closing', box.box_water?.closing ?? box.closing],
          ...(box.lid ? [['Lid when last seen', box.lid]] : []),
        ]),
    ['Probes', clutch.probes.map((p) => p.name).join(', ') || 'none: add readings'],
  ]
  return <Facts facts={facts} />
}

function contents({ dry_mass_g, water_g, set_up_mass_g }: Schemas['BoxResponse']): string {
  const parts = []
  if (dry_mass_g !== null) parts.push(`${dry_mass_g} g dry`)
  if (water_g !== null) parts.push(`${water_g} g water`)
  if (set_up_mass_g !== null) parts.push(`${set_up_mass_g} g in all`)
  return parts.join(', ') || 'not weighed'
}
