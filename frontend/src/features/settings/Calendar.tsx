import { Flex, Text } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, done, type Problem } from '@/shared/api/client'
import { under } from '@/shared/api/under'
import { fullDay, zone } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { showProblem } from '@/shared/ui/toasts'
import { calendarLinkQuery } from './queries'
import { ShownOnce } from './ShownOnce'

/** Due visits and windows for a calendar application: a file, or a link it follows. */
export function Calendar() {
  const client = useQueryClient()
  const link = useQuery(calendarLinkQuery)
  const read = () => client.invalidateQueries({ queryKey: calendarLinkQuery.queryKey })
  const onError = (problem: Problem) => showProblem(problem.detail)
  const make = useMutation({
    mutationFn: () =>
      answer(api.POST('/api/calendar/link', { params: { query: { zone: zone() } } })),
    onSuccess: read,
    onError,
  })
  const end = useMutation<true, Problem>({
    mutationFn: () => done(api.DELETE('/api/calendar/link')),
    onSuccess: () => {
      make.reset()
      return read()
    },
    onError,
  })
  const madeAt = link.data?.made_at
  return (
    <>
      <Text color="soft" mb={3}>
        When a box is next to be opened, when eggs pip, hatchlings shed and dams lay, as days with
        their 80 % window.
      </Text>
      <Flex gap={3} wrap="wrap" mb={3}>
        <Button asChild>
          <a href={under(`/api/calendar.ics?zone=${encodeURIComponent(zone())}`)} download>
            Calendar file
          </a>
        </Button>
        <Button type="button" disabled={make.isPending} onClick={() => make.mutate()}>
          {madeAt ? 'Another private link' : 'Private link to subscribe to'}
        </Button>
        {madeAt && (
          <Button type="button" disabled={end.isPending} onClick={() => end.mutate()}>
            End the link
          </Button>
        )}
      </Flex>
      {make.data ? (
        <ShownOnce
          words="Give it to your calendar application. Whoever has it reads the calendar, so it is shown this once:"
          secret={make.data.link}
        >
          {make.data.this_machine_only &&
            'Only this machine reaches that address. For a phone, open the house to others first.'}
        </ShownOnce>
      ) : (
        madeAt && (
          <Text color="soft">
            A private link made {fullDay(madeAt)} is in use; another one ends it.
          </Text>
        )
      )}
    </>
  )
}
