import { chakra, Span, Strong } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { day } from '@/shared/dates'
import { hatchlingsDueQuery } from '@/shared/hatchlings/queries'
import { Heading } from '@/shared/ui/page'

const WORDS: Record<Schemas['RaisingTask'], string> = {
  shed: 'look for the first shed',
  'first meal': 'offer the first meal',
  meal: 'offer a meal',
}

/** Young animals that need something today, clutch by clutch. */
export function HatchlingsDue() {
  const due = useQuery(hatchlingsDueQuery).data
  if (!due || due.length === 0) return null
  return (
    <section aria-labelledby="hatchlings-due">
      <Heading id="hatchlings-due">Hatchlings</Heading>
      <ul>
        {due.map(({ clutch, task, hatchlings, held_back, since }) => (
          <li key={clutch + task}>
            <Link to={hatchlings.length > 0 ? '/hatchlings' : '/animals'}>
              <chakra.div
                py={2}
                minHeight="thumb"
                borderTop="1px solid"
                borderColor="line"
                _hover={{ bg: 'faint' }}
              >
                <Strong>{whose(clutch, hatchlings, held_back)}:</Strong> {WORDS[task]}
                <Span color="soft">, due since {day(since)}</Span>
              </chakra.div>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** "26-01/1, 3 and Betony" */
function whose(clutch: string, hatchlings: string[], heldBack: string[]): string {
  const young = hatchlings.length > 0 ? [`${clutch}/${hatchlings.join(', ')}`] : []
  return [...young, ...heldBack].join(' and ')
}
