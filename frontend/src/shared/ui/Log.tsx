import { chakra, Span } from '@chakra-ui/react'
import { useState } from 'react'
import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { Button } from './Button'

type Entry = Schemas['LogResponse']

/** The newest act that can still be taken back; undoing an undo is left to the log. */
export function lastUndoable(entries: Entry[]): Entry | undefined {
  return entries.find((entry) => !entry.undone && entry.kind !== 'undo')
}

/** The moments at which the eggs were looked at or watered, each once. */
export function visitsOf(entries: Entry[]): string[] {
  const kinds = ['visit', 'grade', 'candle', 'water']
  const visits = entries.filter((entry) => kinds.includes(entry.kind) && !entry.undone)
  return [...new Set(visits.map((entry) => entry.recorded_at))]
}

/** What was recorded, newest first; each line can be undone, or done again. */
export function Log({
  entries,
  onUndo,
  shownAtFirst = 8,
}: {
  entries: Entry[]
  onUndo: (act: number) => void
  shownAtFirst?: number
}) {
  const [all, setAll] = useState(false)
  const shown = all ? entries : entries.slice(0, shownAtFirst)
  return (
    <>
      <ol>
        {shown.map((entry) => (
          <chakra.li
            key={entry.act}
            display="flex"
            alignItems="center"
            flexWrap={{ base: 'wrap', md: 'nowrap' }}
            columnGap={4}
            minHeight="thumbSmall"
            borderTop="1px solid"
            borderColor="line"
          >
            <chakra.time
              dateTime={entry.recorded_at}
              color="soft"
              width={{ base: '100%', md: '7.5em' }}
              flexShrink={0}
              pt={{ base: 1, md: 0 }}
            >
              {dayAndTime(entry.recorded_at)}
            </chakra.time>
            <Span flex="1" color={entry.undone ? 'soft' : 'ink'}>
              {entry.undone ? <s>{entry.summary}</s> : entry.summary}
              {entry.undone && ' (undone)'}
              {entry.by && (
                <Span color="soft" whiteSpace="var(--one-line)">
                  {' '}
                  by {entry.by}
                </Span>
              )}
            </Span>
            {!entry.undone && (
              <Button variant="bare" size="small" onClick={() => onUndo(entry.act)}>
                {entry.kind === 'undo' ? 'Do again' : 'Undo'}
              </Button>
            )}
          </chakra.li>
        ))}
      </ol>
      {entries.length > shown.length && (
        <Button variant="plain" size="small" mt={3} onClick={() => setAll(true)}>
          Show all {entries.length}
        </Button>
      )}
    </>
  )
}
