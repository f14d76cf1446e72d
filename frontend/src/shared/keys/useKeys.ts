import { useEffect, useId, useSyncExternalStore } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { type Binding, isTyping, keyRegistry, type Level } from './registry'

/** Listens for keys as long as the component is shown; `null` while there is nothing to listen for. */
export function useKeys(level: Level, name: string, bindings: Binding[] | null) {
  const id = useId()
  useEffect(() => {
    if (bindings) keyRegistry.put(id, { level, name, bindings })
    else keyRegistry.drop(id)
  })
  useEffect(() => () => keyRegistry.drop(id), [id])
}

/** Hears every key of the page and gives it to whoever has it. Once, in the frame. */
export function useKeyboard() {
  useHotkeys(
    '*',
    (event) => {
      if (event.ctrlKey || event.altKey || event.metaKey) return
      if (keyRegistry.press(event.key)) event.preventDefault()
    },
    // A chosen sign is a form control too: only where letters are typed they stay letters.
    { enableOnFormTags: true, ignoreEventWhen: (event) => isTyping(event.target) },
  )
}

/** What each key means at this moment. */
export function useKeyMeanings() {
  return useSyncExternalStore(keyRegistry.watch, keyRegistry.meanings)
}
