import type { Schemas } from '@/shared/api/client'
import { clutchesOf } from '@/shared/api/clutchesOf'
import type { LastOpen } from '@/shared/photos/lastOpen'

/** Something photos can be kept at: `owner` is its id, `eggs` how many it has, 0 for none. */
export type PhotoPlace = { owner: number; name: string; eggs: number; to: string }

type Today = Schemas['TodayResponse']

/** What was open last first, then every clutch in a box, then the animals. */
export function placesFor(
  open: LastOpen | null,
  today: Today,
  animals: Schemas['AnimalResponse'][],
): { places: PhotoPlace[]; egg: number | null } {
  const clutches = clutchesOf(today).map(
    ({ id, code, dam, count }): PhotoPlace => ({
      owner: id,
      name: `${code}, ${dam}`,
      eggs: Number(count.split('-')[0]) || 0,
      to: `/clutches/${code}`,
    }),
  )
  const others = animals
    .filter(({ departure }) => !departure)
    .map(({ id, name }): PhotoPlace => ({ owner: id, name, eggs: 0, to: `/animals/${id}` }))
  const all = [...clutches, ...others]
  const first = open && all.find((place) => isOpen(place, open, today))
  return {
    places: first ? [first, ...all.filter((place) => place !== first)] : all,
    egg: first && open?.kind === 'clutch' ? open.egg : null,
  }
}

function isOpen({ owner, to }: PhotoPlace, open: LastOpen, today: Today): boolean {
  if (open.kind === 'animal') return owner === open.id
  if (open.kind === 'clutch') return to === `/clutches/${open.code}`
  const box = today.boxes.find(({ name }) => name === open.name)
  return box?.clutches[0]?.id === owner
}
