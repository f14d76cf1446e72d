import { chakra, Span } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, done, type Problem } from '@/shared/api/client'
import { dayAndTime, fullDay } from '@/shared/dates'
import { browserNamed } from '@/shared/people/browserNamed'
import { Button } from '@/shared/ui/Button'
import { showProblem } from '@/shared/ui/toasts'
import { ownSessionsQuery } from './queries'

/** Where one is signed in, the device used last first; any other than this one can be ended. */
export function OwnSessions() {
  const client = useQueryClient()
  const sessions = useQuery(ownSessionsQuery)
  const end = useMutation<true, Problem, string>({
    mutationFn: (key) => done(api.DELETE('/api/sessions/{key}', { params: { path: { key } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ownSessionsQuery.queryKey }),
    onError: (problem) => showProblem(problem.detail),
  })
  return (
    <chakra.ul mb={4} aria-label="Where you are signed in">
      {sessions.data?.map((session) => (
        <chakra.li
          key={session.key}
          display="flex"
          alignItems="center"
          gap={4}
          minHeight="3.75rem"
          py={2}
          borderTop="1px solid"
          borderColor="line"
        >
          <Span flex="1">
            <strong>{browserNamed(session.device)}</strong>
            {session.here && ', this device'}
            <Span display="block" color="soft" fontSize="small">
              Last used {dayAndTime(session.used_at)}, signed in since {fullDay(session.begun_at)}
            </Span>
          </Span>
          {!session.here && (
            <Button
              type="button"
              size="small"
              disabled={end.isPending}
              onClick={() => end.mutate(session.key)}
            >
              Sign it out
            </Button>
          )}
        </chakra.li>
      ))}
    </chakra.ul>
  )
}
