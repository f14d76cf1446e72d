export type Place = { to: string; name: string; key: string; inHand?: boolean; also?: string }

/** `inHand`: under the thumb on a phone; the others wait behind "More". `also` is the beginning of
 * other addresses that belong there. */
export const PLACES: Place[] = [
  { to: '/', name: 'Today', key: 't', inHand: true },
  { to: '/round', name: 'Round', key: 'r', inHand: true },
  { to: '/hatch', name: 'Hatch', key: 'h', inHand: true, also: '/hatchlings' },
  { to: '/lay-day', name: 'Lay day', key: 'l', inHand: true },
  { to: '/cabinets', name: 'Cabinets', key: 'c', also: '/readings' },
  { to: '/animals', name: 'Animals', key: 'a', also: '/old-records' },
  { to: '/losses', name: 'Losses', key: 'o' },
  { to: '/seasons', name: 'Seasons', key: 'e' },
  { to: '/notes', name: 'Notes', key: 'w' },
  { to: '/bench', name: 'Bench', key: 'b' },
  { to: '/practice', name: 'Practice', key: 'p' },
  { to: '/settings', name: 'Settings', key: 's', also: '/heard' },
]

/** The place an address belongs to, where one can go on from it: Today for what has none of its own. */
export function placeOf(pathname: string): Place {
  const found = PLACES.find((place) => place.to !== '/' && isIn(place, pathname))
  return found ?? (PLACES[0] as Place)
}

/** Whether an address is in a place. */
export function isIn({ to, also }: Place, pathname: string): boolean {
  return [to, also].some(
    (start) => start && (pathname === start || (start !== '/' && pathname.startsWith(`${start}/`))),
  )
}

/** What hangs on a wall: a place without ways to the others around it. */
export const WALL = '/wall'
