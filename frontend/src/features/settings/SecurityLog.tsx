import { chakra, Span, Text } from '@chakra-ui/react'
import { useInfiniteQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { browserNamed } from '@/shared/people/browserNamed'
import { Button } from '@/shared/ui/Button'

type Event = Schemas['SecurityEventResponse']

/** Lines at a time. */
const PAGE = 12

/** Who came in or tried to, and what became of keys, exports and copies. */
export function SecurityLog() {
  const log = useInfiniteQuery({
    queryKey: ['security log'],
    queryFn: ({ pageParam }) =>
      answer(
        api.GET('/api/house/security', {
          params: { query: { limit: PAGE, ...(pageParam ? { before: pageParam } : {}) } },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (page: Event[]) => (page.length < PAGE ? undefined : page.at(-1)?.id),
  })
  const events = log.data?.pages.flat() ?? []
  if (log.data && events.length === 0) {
    return (
      <Text color="soft">
        Nothing yet: nobody signed in or tried to, and no key was made or ended.
      </Text>
    )
  }
  return (
    <>
      <chakra.ul mb={3}>
        {events.map((event) => (
          <Line key={event.id} event={event} />
        ))}
      </chakra.ul>
      {log.hasNextPage && (
        <Button
          type="button"
          size="small"
          disabled={log.isFetchingNextPage}
          onClick={() => log.fetchNextPage()}
        >
          Show earlier
        </Button>
      )}
    </>
  )
}

function Line({ event }: { event: Event }) {
  const refused = event.kind === 'refused'
  return (
    <chakra.li
      display="grid"
      gridTemplateColumns={{ base: '1fr', sm: '8.5em 1fr' }}
      columnGap={4}
      py={2}
      borderTop="1px solid"
      borderColor="line"
    >
      <Span color="soft">{dayAndTime(event.at)}</Span>
      <Span overflowWrap="anywhere">
        {event.who && <strong>{event.who}: </strong>}
        <Span color={refused ? 'vessel' : undefined} fontWeight={refused ? 'semibold' : 400}>
          {event.text}
        </Span>
        {event.address && (
          <Span display="block" color="soft" fontSize="small">
            {browserNamed(event.device)}, {event.address}
          </Span>
        )}
      </Span>
    </chakra.li>
  )
}
