import { chakra } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, done, type Problem } from '@/shared/api/client'
import { dayAndTime, fullDay } from '@/shared/dates'
import { browserNamed } from '@/shared/people/browserNamed'
import { Button } from '@/shared/ui/Button'
import { showProblem } from '@/shared/ui/toaster'

/** Where one is signed in, the device used last first; any other than this one can be ended. */
export function OwnSessions() {
  const client = useQueryClient()
  const sessions = useQuery({
    queryKey: ['own sessions'],
    queryFn: () => answer(api.GET('/api/sessions')),
  })
  const end = useMutation<true, Problem, string>({
    mutationFn: (key) => done(api.DELETE('/api/sessions/{key}', { params: { path: { key } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ['own sessions'] }),
    onError: (problem) => showProblem(problem.detail),
  })
  return (
    <chakra.ul listStyleType="none" mb={4} aria-label="Where you are signed in">
      {sessions.data?.map((session) => (
        <chakra.li
          key={session.key}
          display="flex"
          alignItems="center"
          gap={4}
          minHeight="60px"
          py={2}
          borderTop="1px solid"
          borderColor="line"
        >
          <chakra.span flex="1">
            <strong>{browserNamed(session.device)}</strong>
            {session.here && ', this device'}
            <chakra.span display="block" color="soft" fontSize="0.94em">
              Last used {dayAndTime(session.used_at)}, signed in since {fullDay(session.begun_at)}
            </chakra.span>
          </chakra.span>
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
