import { Box, Flex, Grid, Span, Strong } from '@chakra-ui/react'
import { plainDay } from '@/shared/dates'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import type { NameAnswer } from './queries'
import type { HandLine as Line } from './useHandLines'
import { WhoIsIt } from './WhoIsIt'

/** A finished line and what became of it; where it was not stored, why, and what can be done. */
export function HandLine({
  line,
  onAgain,
  onMend,
}: {
  line: Line
  onAgain: (answers: { names?: NameAnswer[]; anyway?: boolean }) => void
  onMend: () => void
}) {
  const { cells, state, check, problem } = line
  const checked = check?.lines[0]
  return (
    <Box as="li" borderTop="1px solid" borderColor="line" py={2}>
      <Grid
        templateColumns={{ base: '1fr auto', md: '1.3fr 1.3fr 1fr 0.9fr 0.8fr 1.1fr' }}
        columnGap={3}
        maxWidth="60rem"
      >
        <Strong>{cells.dam}</Strong>
        <Span color="soft">{cells.sire ?? ''}</Span>
        <span>{cells.laid && plainDay(cells.laid)}</span>
        <Strong>{cells.count}</Strong>
        <Span color="soft">{cells.hatched && `${cells.hatched} hatched`}</Span>
        <Span color="soft">
          {state === 'stored' && 'stored'}
          {state === 'storing' && 'storing\u2026'}
          {state === 'waiting' && <Strong color="vessel">not stored</Strong>}
        </Span>
      </Grid>
      {state === 'waiting' && (
        <Box borderStart="6px solid" borderColor="vessel" bg="vesselSoft" px={4} py={3} mt={2}>
          {problem && <p>{sentence(problem)}</p>}
          {checked?.problems.map(({ holds, reason }) => (
            <p key={holds}>{sentence(reason)}</p>
          ))}
          {checked?.state === 'known' && <p>{sentence(checked.words)}</p>}
          {check?.names
            .filter(({ animal, new_role }) => animal === null && new_role === null)
            .map((name) => (
              <WhoIsIt
                key={name.name}
                name={name}
                onAnswer={(answer) => onAgain({ names: [answer] })}
              />
            ))}
          <Flex gap={3} wrap="wrap" mt={2}>
            <Button type="button" onClick={onMend}>
              Mend it
            </Button>
            {checked?.state === 'known' && (
              <Button type="button" onClick={() => onAgain({ anyway: true })}>
                It is another clutch
              </Button>
            )}
            {problem && (
              <Button type="button" onClick={() => onAgain({})}>
                Try again
              </Button>
            )}
          </Flex>
        </Box>
      )}
    </Box>
  )
}
