import { Box } from '@chakra-ui/react'
import { Problem } from '@/shared/api/client'
import { useMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { Waiting } from '@/shared/ui/page'

/** While there is no round to show, and when there is none: another time may have one. */
export function NoRound({ error = null, words }: { error?: Error | null; words?: string }) {
  const [moment] = useMoment()
  const problem = error instanceof Problem ? error : null
  const said = isOfMoment(problem) ? undefined : (words ?? error?.message)
  return (
    <>
      {moment !== null && (
        <Box mb={4}>
          <When problem={problem} />
        </Box>
      )}
      {(said || !error) && <Waiting problem={said} />}
    </>
  )
}
