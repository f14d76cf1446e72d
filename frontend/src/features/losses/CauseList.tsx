import { Box, chakra, Grid, Span, Strong, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { Button } from '@/shared/ui/Button'
import { percent } from '@/shared/units'
import type { RankedCause } from './queries'

/** Causes told at once: these, and those of more than a tenth. */
const LEADING = 3
const TELLING = 0.1

/** The causes ranked, each with what spoke for and against it, what would settle it, what to change. */
export function CauseList({ causes, number }: { causes: RankedCause[]; number: number }) {
  const [all, setAll] = useState(false)
  const leading = causes.filter((c, i) => c.share >= TELLING || (i < LEADING && c.share >= 0.02))
  const others = causes.slice(leading.length)
  const rest = others.reduce((sum, cause) => sum + cause.share, 0)
  return (
    <div>
      <ol aria-label={`Causes for egg ${number}`}>
        {(all ? causes : leading).map((cause, i) => (
          <OneCause key={cause.cause} cause={cause} first={i === 0} />
        ))}
      </ol>
      {others.length > 0 && (
        <Button type="button" variant="bare" size="small" onClick={() => setAll(!all)}>
          {all
            ? 'Only the likely ones'
            : `${others.length} other causes, ${percent(rest)} together, and why not`}
        </Button>
      )}
    </div>
  )
}

function OneCause({ cause, first }: { cause: RankedCause; first: boolean }) {
  return (
    <chakra.li py={3} borderTop="1.5px solid" borderColor="line">
      <Grid templateColumns="3.6em 1fr" columnGap={3}>
        <Strong fontSize="large" lineHeight={1.2} textAlign="right">
          {cause.share < 0.005 ? '<1\u00a0%' : percent(cause.share)}
        </Strong>
        <div>
          <chakra.h3 fontSize="lead" fontWeight="bold" lineHeight={1.25}>
            {cause.cause}
          </chakra.h3>
          <Box height="6px" bg="faint" borderRadius="small" my={1} aria-hidden="true">
            <Box
              height="100%"
              bg={cause.cause === 'unknown' ? 'soft' : 'ink'}
              borderRadius="small"
              style={{ width: `${100 * cause.share}%` }}
            />
          </Box>
          <ul>
            {cause.grounds.map((ground) => (
              <chakra.li key={ground.key} lineHeight={1.35}>
                <Link to={`/settings/numbers#${ground.key}`} aria-label={groundLabel(ground)}>
                  <Span
                    display="inline-block"
                    width="1.2em"
                    fontWeight="heavy"
                    color={ground.score > 0 ? 'ink' : 'soft'}
                  >
                    {ground.score > 0 ? '+' : '\u2212'}
                  </Span>
                  <Span color={ground.score > 0 ? 'ink' : 'soft'}>{ground.words}</Span>
                </Link>
              </chakra.li>
            ))}
            {cause.grounds.length === 0 && (
              <chakra.li color="soft">
                {cause.cause === 'unknown'
                  ? 'What is left when nothing speaks clearly.'
                  : 'Nothing known speaks for it or against it.'}
              </chakra.li>
            )}
          </ul>
          {(first || cause.share >= TELLING) && (
            <Text mt={1} lineHeight={1.35}>
              {cause.settle_by && (
                <>
                  <strong>To settle it:</strong> {cause.settle_by}{' '}
                </>
              )}
              {cause.change && (
                <>
                  <strong>To change:</strong> {cause.change}
                </>
              )}
            </Text>
          )}
        </div>
      </Grid>
    </chakra.li>
  )
}

function groundLabel({ words, score }: RankedCause['grounds'][number]): string {
  return `${score > 0 ? 'For' : 'Against'}: ${words}. Its number in settings`
}
