import type { ReactNode } from 'react'

/** A long list: its items, what tells one from another, and what stands in the row of each. */
export type ListProps<T> = {
  items: T[]
  keyOf: (item: T) => string | number
  label?: string | undefined
  /** How high a row is by itself, in px, until it is measured. */
  height: number
  /** What stands in the row of an item. */
  row: (item: T, index: number) => ReactNode
}
