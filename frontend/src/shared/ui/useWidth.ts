import { type RefObject, useLayoutEffect, useRef, useState } from 'react'

/** The width in px of the element the ref is put on, kept up to date; 0 before the first layout. */
export function useWidth<T extends HTMLElement>(): [RefObject<T | null>, number] {
  const ref = useRef<T>(null)
  const [width, setWidth] = useState(0)
  useLayoutEffect(() => {
    const element = ref.current
    if (!element) return
    const observer = new ResizeObserver(() => setWidth(Math.floor(element.clientWidth)))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  return [ref, width]
}
