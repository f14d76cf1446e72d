import { type RefObject, useLayoutEffect, useState } from 'react'

/** How far down the page an element begins, in px; told again when anything above it grows. */
export function useTop(element: RefObject<HTMLElement | null>): number {
  const [top, setTop] = useState(0)
  useLayoutEffect(() => {
    const measure = () => {
      if (!element.current) return
      setTop(Math.round(element.current.getBoundingClientRect().top + window.scrollY))
    }
    measure()
    const page = new ResizeObserver(measure)
    page.observe(document.body)
    return () => page.disconnect()
  }, [element])
  return top
}
