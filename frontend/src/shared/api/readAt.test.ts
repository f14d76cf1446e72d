import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { expect, test } from 'vitest'
import { noteGiven, oldestShown, sharedWithTime } from './readAt'

const MONDAY = 'Mon, 08 Jun 2026 10:00:00 GMT'
const TUESDAY = 'Tue, 09 Jun 2026 10:00:00 GMT'

function given<T>(data: T, date: string): T {
  noteGiven(data, new Response(null, { headers: { date } }))
  return data
}

test('what this device kept is as old as its answer, not as its reading from the store', async () => {
  const client = new QueryClient({
    defaultOptions: { queries: { structuralSharing: sharedWithTime } },
  })
  const answers = [given({ eggs: [1] }, MONDAY), given({ eggs: [1] }, TUESDAY)]
  const observer = new QueryObserver(client, {
    queryKey: ['today'],
    queryFn: () => Promise.resolve(answers.shift()),
  })
  observer.subscribe(() => {})
  expect(oldestShown(client)).toBeNull()
  await expect.poll(() => oldestShown(client)).toBe(Date.parse(MONDAY))
  // The same words again are the same data, and newer.
  await observer.refetch()
  expect(oldestShown(client)).toBe(Date.parse(TUESDAY))
})

test('what no time holds for does not make a page old', async () => {
  const client = new QueryClient()
  const observer = new QueryObserver(client, {
    queryKey: ['rules'],
    queryFn: () => Promise.resolve(given({ steps: [] }, MONDAY)),
  })
  observer.subscribe(() => {})
  await expect.poll(() => client.getQueryData(['rules'])).toBeDefined()
  expect(oldestShown(client)).toBeNull()
})
