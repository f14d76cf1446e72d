import { defaultRangeExtractor, type Range, useWindowVirtualizer } from '@tanstack/react-virtual'
import { memo, useCallback, useRef } from 'react'
import type { ListProps } from './listProps'
import { useTop } from './useTop'

/** Rows beyond the sight, above and below, that are drawn all the same. */
const BEYOND = 3

/** Scrolling draws what comes into sight, and nothing that is there already. */
const Row = memo(function Row({ row, item, index }: RowProps) {
  return row(item, index)
})

type RowProps = { row: ListProps<unknown>['row']; item: unknown; index: number }

/** A long list of the page: rows in sight, and the one that has the focus. */
export default function Windowed({ items, keyOf, label, height, row }: ListProps<unknown>) {
  // The virtualizer stays one object while what it tells changes: the compiler must not see this.
  'use no memo'
  const list = useRef<HTMLOListElement>(null)
  const focused = useRef<number | null>(null)
  const top = useTop(list)
  const virtualizer = useWindowVirtualizer({
    count: items.length,
    estimateSize: () => height,
    getItemKey: (index) => keyOf(items[index]),
    overscan: BEYOND,
    scrollMargin: top,
    // Whoever goes by keys and scrolls away meanwhile is where they were when they go on.
    rangeExtractor: useCallback((range: Range) => {
      const drawn = defaultRangeExtractor(range)
      const held = focused.current
      return held === null || held >= range.count || drawn.includes(held) ? drawn : [...drawn, held]
    }, []),
  })
  return (
    <ol
      ref={list}
      aria-label={label}
      style={{ position: 'relative', height: virtualizer.getTotalSize() }}
      onBlur={() => {
        focused.current = null
      }}
    >
      {virtualizer.getVirtualItems().map(({ key, index, start }) => (
        <li
          key={key as string | number}
          ref={virtualizer.measureElement}
          data-index={index}
          aria-setsize={items.length}
          aria-posinset={index + 1}
          onFocus={() => {
            focused.current = index
          }}
          style={{
            position: 'absolute',
            insetInline: 0,
            top: 0,
            transform: `translateY(${start - top}px)`,
          }}
        >
          <Row row={row} item={items[index]} index={index} />
        </li>
      ))}
    </ol>
  )
}
