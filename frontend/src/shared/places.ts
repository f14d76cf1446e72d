export type Place = { to: string; name: string; key: string; inHand?: boolean }

/** `inHand`: under the thumb on a phone; the others wait behind "More". */
export const PLACES: Place[] = [
  { to: '/', name: 'Today', key: 't', inHand: true },
  { to: '/round', name: 'Round', key: 'r', inHand: true },
  { to: '/hatch', name: 'Hatch', key: 'h', inHand: true },
  { to: '/lay-day', name: 'Lay day', key: 'l', inHand: true },
  { to: '/cabinets', name: 'Cabinets', key: 'c' },
  { to: '/animals', name: 'Animals', key: 'a' },
  { to: '/losses', name: 'Losses', key: 'o' },
  { to: '/seasons', name: 'Seasons', key: 'e' },
  { to: '/notes', name: 'Notes', key: 'w' },
  { to: '/bench', name: 'Bench', key: 'b' },
  { to: '/settings', name: 'Settings', key: 's' },
]

/** The place an address belongs to, where one can go on from it: Today for what has none of its own. */
export function placeOf(pathname: string): Place {
  const found = PLACES.find((place) => place.to !== '/' && pathname.startsWith(place.to))
  return found ?? (PLACES[0] as Place)
}
