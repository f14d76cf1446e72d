import { Grid, Span, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import { day } from '@/shared/dates'
import type { HatchlingLine } from '@/shared/hatchlings/queries'
import { whereabouts } from '@/shared/hatchlings/words'
import { sentence } from '@/shared/sentence'
import { traitsInWords } from '@/shared/traits'

/** Hatchlings of a clutch, a line each: weight, meals, tub, and what is due. */
export function HatchlingList({ lines }: { lines: HatchlingLine[] }) {
  return (
    <ul>
      {lines.map((line) => (
        <li key={line.id}>
          <Link to={`/hatchlings/${line.id}`}>
            <Grid
              templateColumns={{ base: '2.75rem 1fr 5rem', md: '3.5rem 1fr 6rem 11rem' }}
              columnGap={4}
              alignItems="baseline"
              py={3}
              borderTop="1px solid"
              borderColor="line"
              _hover={{ bg: 'faint' }}
            >
              <Strong fontSize="lead">{line.short_name}</Strong>
              <span>{about(line)}</span>
              <Span textAlign="right" whiteSpace="nowrap">
                {line.mass_g === null ? (
                  <Span color="soft">no weight</Span>
                ) : (
                  <strong>{line.mass_g} g</strong>
                )}
              </Span>
              <Span color="soft" gridColumn={{ base: '2 / -1', md: 'auto' }}>
                {meals(line)}
              </Span>
              {(whereabouts(line) || line.due) && (
                <Span gridColumn="2 / -1" fontWeight="semibold">
                  {sentence(whereabouts(line) || line.due?.words || '')}
                </Span>
              )}
            </Grid>
          </Link>
        </li>
      ))}
    </ul>
  )
}

/** "female, 1 copy of Puzzle, tub H 12" */
function about(line: HatchlingLine): string {
  const traits = traitsInWords({ hatch_year: null, traits: line.traits })
  return [line.sex, traits, line.tub && `tub ${line.tub}`].filter(Boolean).join(', ')
}

function meals({ meals_taken, last_offered_at }: HatchlingLine): string {
  if (!last_offered_at) return 'no meal yet'
  const taken = `${meals_taken} ${meals_taken === 1 ? 'meal' : 'meals'} taken`
  return `${taken}, offered ${day(last_offered_at)}`
}
