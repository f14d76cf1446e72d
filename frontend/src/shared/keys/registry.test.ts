import { expect, test } from 'vitest'
import { KeyRegistry } from './registry'

function pressed() {
  const keys = new KeyRegistry()
  const done: string[] = []
  const does = (what: string) => () => void done.push(what)
  keys.put('frame', {
    level: 'frame',
    name: 'Everywhere',
    bindings: [
      { keys: ['o'], what: 'Losses', act: does('Losses') },
      { keys: ['t'], what: 'Today', act: does('Today') },
    ],
  })
  return { keys, done, does }
}

test('a key has one meaning at a time: what is chosen before the place, that before the frame', () => {
  const { keys, done, does } = pressed()
  keys.press('o')
  keys.put('egg', {
    level: 'chosen',
    name: 'Egg 3',
    bindings: [{ keys: ['o'], what: 'smell', act: does('smell') }],
  })
  keys.press('o')
  keys.press('t')
  keys.drop('egg')
  keys.press('o')
  expect(done).toEqual(['Losses', 'smell', 'Today', 'Losses'])
})

test('the list shows what each key does now, and nothing it does not do', () => {
  const { keys, does } = pressed()
  let told = 0
  keys.watch(() => told++)
  const egg = {
    level: 'chosen' as const,
    name: 'Egg 3',
    bindings: [{ keys: ['o'], what: 'smell', act: does('smell') }],
  }
  keys.put('egg', egg)
  expect(keys.meanings().map((l) => [l.name, l.bindings.map((b) => b.what)])).toEqual([
    ['Egg 3', ['smell']],
    ['Everywhere', ['Today']],
  ])
  // Said again as it is, nothing is told: a list that is shown must not render for ever.
  keys.put('egg', { ...egg, bindings: [{ keys: ['o'], what: 'smell', act: does('smell') }] })
  expect(told).toBe(1)
})

test('an open dialog covers the keys of the page, and the list still shows them', () => {
  const { keys, done, does } = pressed()
  keys.put('dialog', {
    level: 'dialog',
    name: 'Keys',
    bindings: [{ keys: ['?'], what: 'close', act: does('close') }],
  })
  expect(keys.press('t')).toBe(false)
  expect(keys.press('?')).toBe(true)
  expect(done).toEqual(['close'])
  expect(keys.meanings().map((l) => l.name)).toEqual(['Everywhere'])
})

test('a key the focused element answers by itself is listed and taken from nobody', () => {
  const { keys, done, does } = pressed()
  keys.put('box', {
    level: 'place',
    name: 'Box',
    bindings: [{ keys: ['t'], what: 'told only' }],
  })
  keys.put('under', {
    level: 'frame',
    name: 'Under',
    bindings: [{ keys: ['x'], what: 'x', act: does('x') }],
  })
  keys.press('x')
  expect(done).toEqual(['x'])
  expect(keys.meanings()[0]?.bindings.map((b) => b.what)).toEqual(['told only'])
})
