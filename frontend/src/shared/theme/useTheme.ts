import { useSyncExternalStore } from 'react'
import { PAPER } from './paper'

export type ThemeName = 'bench' | 'night'

const KEY = 'sandboa.theme'
const listeners = new Set<() => void>()

function current(): ThemeName {
  return document.documentElement.dataset.theme === 'night' ? 'night' : 'bench'
}

/** Sets the theme on the document before the first paint; called once at start. */
export function startTheme() {
  const kept = localStorage.getItem(KEY)
  const night = kept ? kept === 'night' : window.matchMedia('(prefers-color-scheme: dark)').matches
  show(night ? 'night' : 'bench')
}

function show(theme: ThemeName) {
  document.documentElement.dataset.theme = theme
  document.querySelector('meta[name=theme-color]')?.setAttribute('content', PAPER[theme])
}

export function toggleTheme() {
  const next: ThemeName = current() === 'night' ? 'bench' : 'night'
  show(next)
  localStorage.setItem(KEY, next)
  for (const listener of listeners) listener()
}

export function useTheme(): ThemeName {
  return useSyncExternalStore((listener) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }, current)
}
