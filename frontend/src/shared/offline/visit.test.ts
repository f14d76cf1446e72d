import { afterEach, expect, test, vi } from 'vitest'

afterEach(() => vi.unstubAllGlobals())

test('a visit gets its key where the browser has no randomUUID, as over plain http', async () => {
  const kept = new Map<string, string>()
  vi.stubGlobal('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) })
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  })
  const { newVisitKey } = await import('./visit')
  const [one, other] = [newVisitKey(), newVisitKey()]
  expect(one).not.toBe(other)
  expect(one.split('.')[0]).toBe(other.split('.')[0])
})
