/** Who is asked first: a dialog before what is chosen, that before its place, that before the frame. */
const LEVELS = ['frame', 'place', 'chosen', 'dialog'] as const
export type Level = (typeof LEVELS)[number]

export type Binding = {
  /** As KeyboardEvent.key names them; several for one thing. */
  keys: readonly string[]
  /** How they are written in the list; left out, as they are. */
  shown?: string
  what: string
  /** Left out where the focused element answers by itself. */
  act?: (key: string) => void
}

export type Layer = { level: Level; name: string; bindings: Binding[] }

/**
 * The one registry of keys: whoever listens for a key says so here, and here alone it is decided
 * whose it is. A key has one meaning at a time, and the list of keys shows that one.
 */
export class KeyRegistry {
  private readonly layers = new Map<string, Layer>()
  private readonly watchers = new Set<() => void>()
  private listed: Layer[] = []

  /** Says or says anew what a part of the page listens for. */
  put(id: string, layer: Layer) {
    const before = this.layers.get(id)
    this.layers.set(id, layer)
    if (!before || shape(before) !== shape(layer)) this.changed()
  }

  drop(id: string) {
    if (this.layers.delete(id)) this.changed()
  }

  /** Lets whoever has the key now answer it; whether anybody did. */
  press(key: string): boolean {
    const binding = this.inOrder()
      .flatMap((layer) => layer.bindings)
      .find((b) => b.keys.includes(key))
    binding?.act?.(key)
    return !!binding?.act
  }

  /** What each key means now, beginning with what is asked first; the same until it changes. */
  meanings = (): Layer[] => this.listed

  watch = (told: () => void) => {
    this.watchers.add(told)
    return () => this.watchers.delete(told)
  }

  private inOrder(): Layer[] {
    const layers = [...this.layers.values()]
    const dialogs = layers.filter((layer) => layer.level === 'dialog')
    // An open dialog stands before the page: no key reaches what it covers.
    if (dialogs.length) return dialogs
    return layers.sort((a, b) => LEVELS.indexOf(b.level) - LEVELS.indexOf(a.level))
  }

  private changed() {
    const taken = new Set<string>()
    const covered = [...this.layers.values()]
      .filter((layer) => layer.level !== 'dialog')
      .sort((a, b) => LEVELS.indexOf(b.level) - LEVELS.indexOf(a.level))
    this.listed = covered.map((layer) => ({
      ...layer,
      bindings: layer.bindings.flatMap((binding) => {
        const keys = binding.keys.filter((key) => !taken.has(key))
        for (const key of binding.act ? keys : []) taken.add(key)
        return keys.length ? [{ ...binding, keys }] : []
      }),
    }))
    for (const told of this.watchers) told()
  }
}

function shape(layer: Layer): string {
  return JSON.stringify([
    layer.level,
    layer.name,
    layer.bindings.map((b) => [b.keys, b.shown, b.what, !!b.act]),
  ])
}

export const keyRegistry = new KeyRegistry()

/** Whether what is typed goes into a field, where letters are letters. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target.isContentEditable) return true
  if (target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement) return true
  return (
    target instanceof HTMLInputElement && !['radio', 'checkbox', 'button'].includes(target.type)
  )
}
