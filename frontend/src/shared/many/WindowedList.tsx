import { chakra } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import type { ListProps } from './listProps'

// Fetched when a list is long: in most houses none is.
const Windowed = lazy(() => import('./Windowed'))

/** Rows that are drawn all at once: fewer than this many cost nobody anything. */
const FEW = 20

/** An ordered list; of a long one only the rows in sight are drawn. */
export function WindowedList<T>(props: ListProps<T>) {
  const { items, keyOf, label, height, row } = props
  if (items.length > FEW) {
    return (
      // As high as it will be: what stands below does not jump.
      <Suspense fallback={<chakra.div height={`${items.length * height}px`} />}>
        <Windowed {...(props as ListProps<unknown>)} />
      </Suspense>
    )
  }
  return (
    <ol aria-label={label}>
      {items.map((item, index) => (
        <li key={keyOf(item)}>{row(item, index)}</li>
      ))}
    </ol>
  )
}
