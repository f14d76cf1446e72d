import { type RefObject, useLayoutEffect, useRef } from 'react'

/**
 * Keeps a part of a page under the thumb: while it is in use, what appears or goes above it
 * scrolls the page instead of moving it. Put the ref on the part.
 *
 * Browsers do so by themselves only for what changes outside the view, and some not at all.
 */
export function useStayPut<Part extends HTMLElement>(): RefObject<Part | null> {
  const part = useRef<Part>(null)
  useLayoutEffect(() => {
    const element = part.current
    const whole = element?.parentElement
    if (!element || !whole) return
    const topInView = () => element.getBoundingClientRect().top
    let inUse = false
    let top = topInView()
    const scrolled = () => {
      top = topInView()
    }
    const use = ({ target }: Event) => {
      inUse = target instanceof Node && element.contains(target)
      scrolled()
    }
    // After the layout and before it is painted; what the browser has held by itself did not move.
    const observer = new ResizeObserver(() => {
      const moved = topInView() - top
      if (inUse && moved !== 0) window.scrollBy({ top: moved, behavior: 'instant' })
      scrolled()
    })
    observer.observe(whole)
    window.addEventListener('scroll', scrolled, { passive: true })
    document.addEventListener('pointerdown', use)
    document.addEventListener('focusin', use)
    return () => {
      observer.disconnect()
      window.removeEventListener('scroll', scrolled)
      document.removeEventListener('pointerdown', use)
      document.removeEventListener('focusin', use)
    }
  }, [])
  return part
}
