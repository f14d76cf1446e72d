import { Box, chakra, Flex, Span } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import { dayAndTime } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Waiting } from '@/shared/ui/page'
import { type Entry, enteredLate, happenedAt, pageOf } from './entries'
import { UndoLine } from './UndoLine'

// Today's first load is small; forms come when one is opened.
const CorrectRecord = lazy(() =>
  import('./CorrectRecord').then(({ CorrectRecord }) => ({ default: CorrectRecord })),
)

/**
 * What was recorded, newest first; each line can be undone, or done again.
 *
 * `onMore` reads what came before, where there is more.
 */
export function Log({
  entries,
  shownAtFirst = 8,
  onMore,
}: {
  entries: Entry[]
  shownAtFirst?: number
  onMore?: (() => void) | undefined
}) {
  const [all, setAll] = useState(false)
  const shown = all ? entries : entries.slice(0, shownAtFirst)
  return (
    <>
      <ol>
        {shown.map((entry) => (
          <Line key={entry.act} entry={entry} />
        ))}
      </ol>
      {entries.length > shown.length ? (
        <Button variant="plain" size="small" mt={3} onClick={() => setAll(true)}>
          Show {onMore ? 'older ones' : `all ${entries.length}`}
        </Button>
      ) : (
        onMore && (
          <Button variant="plain" size="small" mt={3} onClick={onMore}>
            Show older ones
          </Button>
        )
      )}
    </>
  )
}

function Line({ entry }: { entry: Entry }) {
  const [correcting, setCorrecting] = useState(false)
  const page = pageOf(entry)
  return (
    <chakra.li
      display="flex"
      alignItems="center"
      flexWrap={correcting ? 'wrap' : { base: 'wrap', md: 'nowrap' }}
      columnGap={4}
      minHeight="thumbSmall"
      borderTop="1px solid"
      borderColor="line"
    >
      <chakra.time
        dateTime={happenedAt(entry)}
        color="soft"
        width={{ base: '100%', md: '7.5em' }}
        flexShrink={0}
        pt={{ base: 1, md: 0 }}
      >
        {dayAndTime(happenedAt(entry))}
      </chakra.time>
      <Span
        flex={{ base: '1 1 14rem', md: '1' }}
        minWidth={0}
        overflowWrap="anywhere"
        color={entry.undone ? 'soft' : 'ink'}
      >
        {entry.undone ? <s>{entry.summary}</s> : entry.summary}
        {entry.undone && ' (undone)'}
        {(entry.by || enteredLate(entry)) && (
          <Span color="soft">
            {entry.by && ` by ${entry.by}`}
            {enteredLate(entry) && `, entered ${dayAndTime(entry.recorded_at)}`}
          </Span>
        )}
      </Span>
      <Flex wrap="wrap" justify="flex-end" marginStart="auto" maxWidth="100%">
        {page !== null && (
          <Button asChild variant="bare" size="small">
            <Link to={page} aria-label={`Correct: ${entry.summary}`}>
              Correct
            </Link>
          </Button>
        )}
        {entry.correctable && (
          <Button
            variant="bare"
            size="small"
            aria-expanded={correcting}
            onClick={() => setCorrecting(!correcting)}
          >
            Correct
          </Button>
        )}
        {!entry.undone && <UndoLine entry={entry} />}
      </Flex>
      {correcting && entry.correctable && (
        <Box flex="0 0 100%">
          <Suspense fallback={<Waiting />}>
            <CorrectRecord act={entry.act} onDone={() => setCorrecting(false)} />
          </Suspense>
        </Box>
      )}
    </chakra.li>
  )
}
