import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { expect, test } from 'vitest'
import { readAgain } from './readAgain'

/** A page that reads `['photos']`; each answer comes when it is told to. */
function page(queryKey: string[]) {
  const client = new QueryClient()
  const asked: ((photos: string[]) => void)[] = []
  const queryFn = () => new Promise<string[]>((come) => asked.push(come))
  const observer = new QueryObserver<string[]>(client, { queryKey, queryFn })
  observer.subscribe(() => {})
  return { client, asked, shown: () => client.getQueryData(queryKey) }
}

test('a first answer asked for before the act is not taken for the new one', async () => {
  const { client, asked, shown } = page(['photos'])
  const again = readAgain(client)
  await expect.poll(() => asked.length).toBe(2)
  asked[0]?.([])
  asked[1]?.(['just taken'])
  await again
  expect(shown()).toEqual(['just taken'])
})

test('what was read already is read again', async () => {
  const { client, asked, shown } = page(['photos'])
  asked[0]?.([])
  await expect.poll(shown).toEqual([])
  const again = readAgain(client)
  await expect.poll(() => asked.length).toBe(2)
  asked[1]?.(['just taken'])
  await again
  expect(shown()).toEqual(['just taken'])
})

test('a delivery on its way is left alone', async () => {
  const { client, asked, shown } = page(['delivery', 'visit 1'])
  await readAgain(client)
  expect(asked).toHaveLength(1)
  asked[0]?.(['brought'])
  await expect.poll(shown).toEqual(['brought'])
})
