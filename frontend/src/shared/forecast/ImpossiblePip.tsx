import { Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { Notice } from '@/shared/ui/page'

/** A first pip that cannot be by heat: the question, the two mends, and that all of it is right. */
export function ImpossiblePip({
  code,
  asked,
  cabinet,
}: {
  code: string
  asked: Schemas['ImpossiblePipResponse']
  cabinet: string | undefined
}) {
  const right = useAct(
    () => answer(api.POST('/api/clutches/{code}/pip-is-right', { params: { path: { code } } })),
    (act) => act,
  )
  return (
    <Notice label="Does not fit">
      {asked.question}
      <Flex gap={2} wrap="wrap" mt={3}>
        <Button asChild>
          <Link to={`/clutches/${code}/correct`}>Correct the lay date</Link>
        </Button>
        {cabinet && (
          <Button asChild>
            <Link to={`/cabinets/${encodeURIComponent(cabinet)}`}>See the probe</Link>
          </Button>
        )}
        <Button
          type="button"
          variant="bare"
          disabled={right.isPending}
          onClick={() => right.mutate()}
        >
          Both are right
        </Button>
      </Flex>
    </Notice>
  )
}
