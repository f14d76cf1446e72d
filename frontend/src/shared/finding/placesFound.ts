import { PLACES, WALL } from '@/shared/places'
import { foundParts, PARTS } from '@/shared/settings/parts'

export type Found = { kind: string; name: string; about: string; place: string }

/** Places of the application, and parts of Settings, that answer what is sought; known without the house. */
export function placesFound(sought: string, runs: boolean): Found[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return []
  const places = [...PLACES, { to: WALL, name: 'Wall view', key: null }]
    .filter(({ name }) =>
      words.every((word) =>
        name
          .toLowerCase()
          .split(' ')
          .some((own) => own.startsWith(word)),
      ),
    )
    .map(({ name, to, key }) => ({
      kind: 'place',
      name,
      about: key ? `key ${key}` : 'for a tablet in the room',
      place: to,
    }))
  const parts = foundParts(
    PARTS.filter((part) => runs || !part.runs),
    sought,
  ).map(({ id, name, about }) => ({ kind: 'setting', name, about, place: `/settings/${id}` }))
  return [...places, ...parts]
}
