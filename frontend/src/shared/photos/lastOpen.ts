const KEY = 'sandboa.last-open'

/** What photos can be of, as it is looked at: a clutch, one of its eggs, a box, an animal. */
export type LastOpen =
  | { kind: 'clutch'; code: string; egg: number | null }
  | { kind: 'box'; name: string }
  | { kind: 'animal'; id: number }

/** The thing a path shows, null for one that shows none. */
export function openAt(path: string): LastOpen | null {
  const parts = path.split('/').filter(Boolean).map(decodeURIComponent)
  const [place, name = '', part, number] = parts
  if (!name) return null
  if (place === 'clutches') {
    return { kind: 'clutch', code: name, egg: part === 'eggs' ? Number(number) || null : null }
  }
  if (place === 'hatch') return { kind: 'clutch', code: name, egg: null }
  if (place === 'round') return { kind: 'box', name }
  const id = Number(name)
  if ((place === 'animals' || place === 'hatchlings') && Number.isInteger(id) && id > 0) {
    return { kind: 'animal', id }
  }
  return null
}

/** Remembers on this device what was looked at last: photos shared to it land there. */
export function noteOpen(path: string) {
  const open = openAt(path)
  if (open) localStorage.setItem(KEY, JSON.stringify(open))
}

export function lastOpen(): LastOpen | null {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? 'null') as LastOpen | null
  } catch {
    return null
  }
}
