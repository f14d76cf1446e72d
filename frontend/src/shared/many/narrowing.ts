/** One way to narrow a list: what each item has of it, and how that is said. */
export type Facet<T> = {
  /** Its name in the address of the page. */
  key: string
  legend: string
  /** Whether it is counted where there is one value of it alone. */
  alone?: boolean
  valuesOf: (item: T) => readonly string[]
  /** What a value is called; itself, where left out. */
  words?: (value: string) => string
}

export type Count = { value: string; label: string; count: number }

/** What was chosen of each facet, by its key. */
export type Chosen = Readonly<Record<string, string | undefined>>

/** The items that have all that was chosen, and whose text has what was typed. */
export function narrowed<T>(
  items: T[],
  facets: readonly Facet<T>[],
  chosen: Chosen,
  typed = '',
  textOf: (item: T) => string = () => '',
): T[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  return items.filter(
    (item) =>
      facets.every(({ key, valuesOf }) => {
        const wanted = chosen[key]
        return wanted === undefined || valuesOf(item).includes(wanted)
      }) && words.every((word) => textOf(item).toLowerCase().includes(word)),
  )
}

/**
 * How many of the items `left` by everything else have each value of a facet: what a tap on it
 * would leave. In the order of `order`, then as all items come.
 */
export function countsOf<T>(
  items: T[],
  facet: Facet<T>,
  left: T[],
  order: readonly string[] = [],
): Count[] {
  const counts = new Map(order.map((value) => [value, 0]))
  for (const item of items) {
    // A value that nothing is left of stays in its place: chips do not move under a thumb.
    for (const value of facet.valuesOf(item)) counts.set(value, counts.get(value) ?? 0)
  }
  for (const item of left) {
    for (const value of facet.valuesOf(item)) counts.set(value, (counts.get(value) ?? 0) + 1)
  }
  const present = new Set(items.flatMap((item) => facet.valuesOf(item)))
  return [...counts]
    .filter(([value]) => present.has(value))
    .map(([value, count]) => ({ value, count, label: facet.words?.(value) ?? value }))
}
