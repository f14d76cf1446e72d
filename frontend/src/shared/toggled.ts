/** The same list with `entry` added, or without it when it was there. */
export function toggled<T>(list: T[], entry: T): T[] {
  return list.includes(entry) ? list.filter((held) => held !== entry) : [...list, entry]
}
