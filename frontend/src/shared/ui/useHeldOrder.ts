import { useEffect, useRef } from 'react'

/**
 * Items in the order they came in first, however they are sorted now: nothing changes places
 * under a thumb. Sorted anew when the page is opened, or looked at again.
 *
 * `key` tells one from another; new ones come last.
 */
export function useHeldOrder<Item, Key>(items: Item[], key: (item: Item) => Key): Item[] {
  const order = useRef<Key[]>([])
  useEffect(() => {
    const lookedAtAgain = () => {
      if (document.visibilityState === 'visible') order.current = []
    }
    document.addEventListener('visibilitychange', lookedAtAgain)
    return () => document.removeEventListener('visibilitychange', lookedAtAgain)
  }, [])
  const held = inHeldOrder(items, key, order.current)
  order.current = held.map(key)
  return held
}

/** Items whose keys `order` knows in that order, then the others as they came. */
export function inHeldOrder<Item, Key>(
  items: Item[],
  key: (item: Item) => Key,
  order: Key[],
): Item[] {
  const place = new Map(order.map((known, i) => [known, i]))
  const placeOf = (item: Item) => place.get(key(item)) ?? order.length
  return [...items].sort((a, b) => placeOf(a) - placeOf(b))
}
