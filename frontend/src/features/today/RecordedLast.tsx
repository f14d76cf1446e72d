import { useInfiniteQuery } from '@tanstack/react-query'
import { LogOf, logQuery } from '@/shared/log/LogOf'
import { Heading } from '@/shared/ui/page'

/** The log of the whole house: here also what belongs to no clutch can be undone. */
export function RecordedLast() {
  const log = useInfiniteQuery(logQuery(null))
  if (!log.data?.pages[0]?.length) return null
  return (
    <section aria-labelledby="recorded-last">
      <Heading id="recorded-last">Recorded last</Heading>
      <LogOf about={null} />
    </section>
  )
}
