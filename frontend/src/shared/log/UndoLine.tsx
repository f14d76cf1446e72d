import { Box, Flex, Text } from '@chakra-ui/react'
import { useMutation } from '@tanstack/react-query'
import type { Problem } from '@/shared/api/client'
import { useUndo } from '@/shared/api/queries'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import { showProblem } from '@/shared/ui/toasts'
import { askDependents } from './dependents'
import type { Entry } from './entries'

/** Takes an act back; what was recorded later and rests on it is told before. */
export function UndoLine({ entry }: { entry: Entry }) {
  const undo = useUndo()
  const ask = useMutation<string[], Problem, void>({
    mutationFn: () => askDependents(entry.act),
    onSuccess: (sentences) => {
      if (sentences.length === 0) undo.mutate(entry.act)
    },
    onError: (problem) => showProblem(problem.detail),
  })
  if (ask.data?.length) {
    return (
      <Box width={{ base: '100%', md: '24rem' }} flexShrink={0} role="alert" py={2}>
        <Text fontWeight="semibold">{ask.data.map(sentence).join(' ')}</Text>
        <Flex gap={2} mt={1} wrap="wrap">
          <Button size="small" onClick={() => undo.mutate(entry.act)}>
            Undo all the same
          </Button>
          <Button size="small" variant="bare" onClick={() => ask.reset()}>
            Leave it
          </Button>
        </Flex>
      </Box>
    )
  }
  return (
    <Button
      variant="bare"
      size="small"
      disabled={ask.isPending || undo.isPending}
      onClick={() => ask.mutate()}
    >
      {entry.kind === 'undo' ? 'Do again' : 'Undo'}
    </Button>
  )
}
