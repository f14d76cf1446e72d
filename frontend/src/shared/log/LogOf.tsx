import { Text } from '@chakra-ui/react'
import { infiniteQueryOptions, useInfiniteQuery } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'
import { Log } from './Log'

/** Lines read at once. */
const LINES = 40

/** The log of a thing by its id, or of the whole house, read as far as it is wanted. */
export const logQuery = (about: number | null) =>
  infiniteQueryOptions({
    queryKey: ['log', about],
    queryFn: ({ pageParam: before }) =>
      answer(
        api.GET('/api/acts', {
          params: {
            query: {
              limit: LINES,
              ...(about !== null && { about }),
              ...(before !== null && { before }),
            },
          },
        }),
      ),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => (page.length < LINES ? undefined : page.at(-1)?.act),
  })

/** What was recorded of something: an animal, box, cabinet, egg, hatchling, pairing or probe. */
export function LogOf({
  about,
  shownAtFirst = 5,
}: {
  about: number | null
  shownAtFirst?: number
}) {
  const log = useInfiniteQuery(logQuery(about))
  if (!log.data) return <Text color="soft">{log.error?.message ?? 'Reading\u2026'}</Text>
  const entries = log.data.pages.flat()
  if (entries.length === 0) return <Text color="soft">Nothing recorded yet.</Text>
  return (
    <Log
      entries={entries}
      shownAtFirst={shownAtFirst}
      onMore={log.hasNextPage ? () => void log.fetchNextPage() : undefined}
    />
  )
}
