import { chakra, Span, Text } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { dayAndTime, fullMoment } from '@/shared/dates'
import { healthQuery, useHealth } from '@/shared/house/useHealth'
import { Button } from '@/shared/ui/Button'
import { LineButton, ListedLine } from '@/shared/ui/ListedLine'
import { Notice } from '@/shared/ui/page'
import { showProblem } from '@/shared/ui/toasts'
import { copiesQuery, restoreQuery } from './queries'
import { size } from './size'

type Copy = Schemas['CopyResponse']

/** Copies shown before the rest is asked for. */
const SHOWN = 6

/** The copies the house can be restored from, newest first. */
export function Copies() {
  const [all, setAll] = useState(false)
  const [chosen, setChosen] = useState<string | null>(null)
  const copies = useQuery(copiesQuery)
  const underWay = useHealth(true).data?.restoring != null
  const listed = copies.data ?? []
  if (listed.length === 0) return null
  const shown = all ? listed : listed.slice(0, SHOWN)
  return (
    <>
      <chakra.h3 fontWeight="bold" mb={1}>
        Restore the house
      </chakra.h3>
      <LastRestore underWay={underWay} />
      <chakra.ul mb={3}>
        {shown.map((copy) => (
          <Line
            key={copy.name}
            copy={copy}
            underWay={underWay}
            chosen={chosen === copy.name}
            onChoose={() => setChosen(chosen === copy.name ? null : copy.name)}
          />
        ))}
      </chakra.ul>
      {listed.length > shown.length && (
        <Button type="button" variant="bare" size="small" onClick={() => setAll(true)}>
          {listed.length - shown.length} more
        </Button>
      )}
    </>
  )
}

function Line({
  copy,
  underWay,
  chosen,
  onChoose,
}: {
  copy: Copy
  underWay: boolean
  chosen: boolean
  onChoose: () => void
}) {
  const client = useQueryClient()
  const take = useMutation<Schemas['RestoreResponse'], Problem>({
    mutationFn: () => answer(api.POST('/api/house/restore', { body: { copy_name: copy.name } })),
    onSuccess: () => {
      onChoose()
      return client.invalidateQueries({ queryKey: healthQuery(true).queryKey })
    },
    onError: (problem) => showProblem(problem.detail),
  })
  return (
    <>
      <ListedLine
        name={<strong>{fullMoment(copy.at)}</strong>}
        more={`${copy.kind === 'backup' ? 'backup' : 'the house as it was before it was restored'}, ${size(copy.size_bytes)}`}
      >
        <LineButton doing={underWay} onClick={onChoose}>
          {chosen ? 'Leave it' : 'Restore from this'}
        </LineButton>
      </ListedLine>
      {chosen && (
        <chakra.li bg="faint" px={4} py={4} mb={2} borderRadius="small">
          <Text mb={3}>
            Everything recorded after {dayAndTime(copy.at)} leaves the house, by everybody. It is
            not lost: the house as it is now is kept whole and stands in this list afterwards.
            Readings that loggers still hold come in again. Passphrases stay as they are.
          </Text>
          <Button
            type="button"
            variant="act"
            disabled={take.isPending}
            onClick={() => take.mutate()}
          >
            Restore the house as of {dayAndTime(copy.at)}
          </Button>
        </chakra.li>
      )}
    </>
  )
}

/** What became of the last restore; everything is read anew when one has ended. */
function LastRestore({ underWay }: { underWay: boolean }) {
  const last = useQuery(restoreQuery(underWay)).data
  if (underWay) {
    return (
      <Text role="status" fontWeight="semibold" mb={2}>
        The house is being restored. Everything can be read; nothing is stored until that is done.
      </Text>
    )
  }
  if (!last?.ended_at) return null
  return last.problem ? (
    <Notice urgent label="It was not restored.">
      {last.problem}
    </Notice>
  ) : (
    <Text role="status" fontWeight="semibold" mb={2}>
      The house was restored {dayAndTime(last.ended_at)}. The one before lies whole in{' '}
      <Span wordBreak="break-all">{last.aside}</Span>.
    </Text>
  )
}
