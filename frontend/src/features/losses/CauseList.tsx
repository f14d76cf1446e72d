import { chakra } from '@chakra-ui/react'
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
      <chakra.ol listStyleType="none" aria-label={`Causes for egg ${number}`}>
        {(all ? causes : leading).map((cause, i) => (
          <OneCause key={cause.cause} cause={cause} first={i === 0} />
        ))}
      </chakra.ol>
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
      <chakra.div display="grid" gridTemplateColumns="3.6em 1fr" columnGap={3}>
        <chakra.strong fontSize="1.25em" lineHeight={1.2} textAlign="right">
          {cause.share < 0.005 ? '<1\u00a0%' : percent(cause.share)}
        </chakra.strong>
        <div>
          <chakra.h3 fontSize="1.12em" fontWeight={750} lineHeight={1.25}>
            {cause.cause}
          </chakra.h3>
          <chakra.div height="6px" bg="faint" borderRadius="small" my={1} aria-hidden="true">
            <chakra.div
              height="100%"
              bg={cause.cause === 'unknown' ? 'soft' : 'ink'}
              borderRadius="small"
              style={{ width: `${100 * cause.share}%` }}
            />
          </chakra.div>
          <chakra.ul listStyleType="none">
            {cause.grounds.map((ground) => (
              <chakra.li key={ground.key} lineHeight={1.35}>
                <Link to={`/settings#${ground.key}`} aria-label={groundLabel(ground)}>
                  <chakra.span
                    display="inline-block"
                    width="1.2em"
                    fontWeight={800}
                    color={ground.score > 0 ? 'ink' : 'soft'}
                  >
                    {ground.score > 0 ? '+' : '\u2212'}
                  </chakra.span>
                  <chakra.span color={ground.score > 0 ? 'ink' : 'soft'}>
                    {ground.words}
                  </chakra.span>
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
          </chakra.ul>
          {(first || cause.share >= TELLING) && (
            <chakra.p mt={1} lineHeight={1.35}>
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
            </chakra.p>
          )}
        </div>
      </chakra.div>
    </chakra.li>
  )
}

function groundLabel({ words, score }: RankedCause['grounds'][number]): string {
  return `${score > 0 ? 'For' : 'Against'}: ${words}. Its number in settings`
}
