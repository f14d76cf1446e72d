/** An egg as requests name it: its number, and its clutch where its box holds eggs of several. */
export type EggRef = { number: number; clutch: string | null }

/** The egg that is called `name` in its box: "3", or "26-04/3" where several clutches lie. */
export function eggRef(name: string): EggRef {
  const at = name.lastIndexOf('/')
  return { number: Number(name.slice(at + 1)), clutch: at < 0 ? null : name.slice(0, at) }
}

/** The page of the egg called `name` in a box of the clutch `code`. */
export function eggPath(name: string, code: string): string {
  const { number, clutch } = eggRef(name)
  return `/clutches/${clutch ?? code}/eggs/${number}`
}

/** What an egg that a request names is called in its box. */
export function nameOfRef({ number, clutch }: { number: number; clutch?: string | null }): string {
  return clutch ? `${clutch}/${number}` : String(number)
}

/** The next free name beside a box called `base`: "26-04 B", then C. The house has the last word. */
export function nextBoxName(base: string, taken: string[]): string {
  const stem = base.replace(/ [B-Z]$/, '')
  const held = new Set(taken.map((name) => name.toLowerCase()))
  const endings = [...'BCDEFGHIJKLMNOPQRSTUVWXYZ'].map((letter) => `${stem} ${letter}`)
  return endings.find((name) => !held.has(name.toLowerCase())) ?? `${stem} ${taken.length + 1}`
}
