/** What chances that an egg lives are called, from which on. */
const NAMES: [from: number, name: string][] = [
  [0.97, 'almost surely alive'],
  [0.85, 'very likely alive'],
  [0.6, 'likely alive'],
  [0.4, 'alive or not, about even'],
  [0.15, 'more likely lost than alive'],
]

/** "likely alive", "hardly alive": a chance in words. */
export function chanceName(alive: number): string {
  return NAMES.find(([from]) => alive >= from)?.[1] ?? 'hardly alive'
}

/** "83 %"; near the ends no more than is known: "over 99 %", "under 1 %". */
export function chance(share: number): string {
  if (share >= 0.995) return 'over 99\u00a0%'
  return share < 0.005 ? 'under 1\u00a0%' : `${Math.round(share * 100)}\u00a0%`
}

/** A chance in words first, the number second. */
export function chanceWords(alive: number): string {
  // Where its name speaks of losing, the number says that it is of living.
  const of = alive >= 0.15 && alive < 0.4 ? ' alive' : ''
  return `${chanceName(alive)} (${chance(alive)}${of})`
}
