import { chakra, Grid, Span, Strong, Text } from '@chakra-ui/react'
import { Link } from 'react-router'
import { plainDay } from '@/shared/dates'
import type { PastClutch } from './queries'

/** The past clutches, by year; each leads to where it is corrected. */
export function PastList({ past }: { past: PastClutch[] }) {
  if (past.length === 0) return <Text color="soft">None recorded yet.</Text>
  const years = new Set(past.map(({ laid }) => laid.slice(0, 4)))
  return (
    <>
      {[...years].map((year) => (
        <Year key={year} year={year} clutches={past.filter(({ laid }) => laid.startsWith(year))} />
      ))}
    </>
  )
}

function Year({ year, clutches }: { year: string; clutches: PastClutch[] }) {
  return (
    <section aria-label={year}>
      <chakra.h3 fontWeight="bold" mt={4}>
        {year} <Span color="soft">{clutches.length}</Span>
      </chakra.h3>
      <chakra.ul maxWidth="53.75rem">
        {clutches.map((clutch) => (
          <li key={clutch.id}>
            <Link to={`/old-records/${clutch.id}`}>
              <Grid
                templateColumns={{
                  base: '1fr auto',
                  md: '1.2fr 1.2fr 4.5rem 1fr 1.4fr',
                }}
                columnGap={4}
                minHeight="thumb"
                py={1}
                alignItems="center"
                borderTop="1px solid"
                borderColor="line"
                _hover={{ bg: 'faint' }}
              >
                <Strong>
                  {clutch.dam}
                  {clutch.code && <Span color="soft"> {clutch.code}</Span>}
                </Strong>
                <Span color="soft">{clutch.sire ?? 'sire not known'}</Span>
                <Strong>{clutch.count}</Strong>
                <span>{plainDay(clutch.laid)}</span>
                <Span color="soft">{whatCame(clutch)}</Span>
              </Grid>
            </Link>
          </li>
        ))}
      </chakra.ul>
    </section>
  )
}

/** "5 hatched, first pip day 58" */
function whatCame({ hatched, days_to_pip }: PastClutch): string {
  const told = [
    hatched !== null && `${hatched} hatched`,
    days_to_pip !== null && `first pip day ${days_to_pip}`,
  ].filter(Boolean)
  return told.join(', ') || 'what hatched is not known'
}
