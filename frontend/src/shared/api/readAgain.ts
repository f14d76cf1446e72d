import type { Query, QueryClient } from '@tanstack/react-query'

/** Not what brings visits to the house, nor whether it is there: those are no reading. */
const isRead = (query: Query) => !['delivery', 'alive'].includes(String(query.queryKey[0]))

/**
 * After an act, every open page reads again.
 *
 * What a page is just reading for the first time was asked before the act: invalidating alone
 * would take that answer for the new one, and the page would not show what was recorded.
 */
export async function readAgain(client: QueryClient): Promise<void> {
  await client.cancelQueries({
    type: 'active',
    predicate: (query) => isRead(query) && query.state.data === undefined,
  })
  await client.invalidateQueries({ predicate: isRead })
}
