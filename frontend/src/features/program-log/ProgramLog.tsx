import { chakra, Span, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { programLogQuery } from './queries'

/** The end of the log that the program keeps of itself, newest line first. */
export function ProgramLog() {
  const { data: log } = useQuery(programLogQuery)
  if (log === undefined) return null
  if (log === null) return <Text color="soft">The demo keeps no log.</Text>
  return (
    <>
      <Text color="soft" mb={3} overflowWrap="anywhere">
        Kept in {log.file}. Send its last lines along when you ask somebody for help.
      </Text>
      {log.lines.length === 0 ? (
        <Text>Nothing was noted yet.</Text>
      ) : (
        <chakra.ol
          maxHeight="20rem"
          overflowY="auto"
          tabIndex={0}
          aria-label="Lines of the log, newest first"
          fontFamily="ui-monospace, monospace"
          fontSize="small"
          border="1px solid"
          borderColor="line"
          p={3}
        >
          {log.lines.toReversed().map((line, index) => (
            <chakra.li key={`${log.lines.length - index} ${line}`} overflowWrap="anywhere">
              <Span color={isTrouble(line) ? 'vessel' : undefined}>{line}</Span>
            </chakra.li>
          ))}
        </chakra.ol>
      )}
    </>
  )
}

function isTrouble(line: string) {
  return / (WARNING|ERROR|CRITICAL) /.test(line)
}
