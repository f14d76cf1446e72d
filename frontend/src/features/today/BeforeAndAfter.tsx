import { Box, chakra, Span, Stack, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import { BoxDrawing } from '@/eggs/BoxDrawing'
import type { Schemas } from '@/shared/api/client'
import { useAfterLaying, useLayDays, useReadiness, useSeason } from '@/shared/api/queries'
import { Preparations } from '@/shared/breeding/Preparations'
import { Readiness } from '@/shared/climate/Readiness'
import { day, dayAndTime, dayRange } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Heading, Notice } from '@/shared/ui/page'

type Dam = Schemas['DamLaySeasonResponse']

/** Lay days under way, who lays next, and dams on the way back: what is not in a box. */
export function BeforeAndAfter() {
  const season = useSeason()
  const expected = season.data?.dams.filter((dam) => dam.forecast) ?? []
  return (
    <>
      <UnderWay />
      {season.data && expected.length > 0 && (
        <section aria-labelledby="next-to-lay">
          <Heading id="next-to-lay">Next to lay</Heading>
          <Stack gap={4} mb={5}>
            {expected.map((dam) => (
              <Expected key={dam.dam} dam={dam} />
            ))}
          </Stack>
          <CabinetsReady />
        </section>
      )}
      <AfterLaying />
    </>
  )
}

function UnderWay() {
  const open = useLayDays()
  if (!open.data?.length) return null
  return (
    <section aria-labelledby="lay-days">
      <Heading id="lay-days">Laid, not boxed yet</Heading>
      <chakra.ul display="flex" flexDirection="column" gap={3}>
        {open.data.map((lay) => (
          <chakra.li key={lay.id} display="flex" alignItems="center" gap={5} flexWrap="wrap">
            {lay.state.eggs.length > 0 && (
              <BoxDrawing
                eggs={lay.state.eggs.map((egg, i) => ({ ...egg, number: i + 1, grade: 0 }))}
                medium=""
                width={128}
                label={`${lay.state.eggs.length} eggs, not boxed yet`}
              />
            )}
            <Span flex="1" minWidth="min(12.5rem, 100%)">
              <Strong fontSize="large">{lay.state.dam}</Strong>
              {lay.count && `, ${lay.count}`}, laid {dayAndTime(lay.state.laid_at)}
              {lay.state.lump === 'left' && (
                <Strong color="vessel" display="block">
                  A lump was left: look at her again.
                </Strong>
              )}
              {lay.found_again && (
                <Span color="soft" display="block">
                  {lay.found_again}
                </Span>
              )}
            </Span>
            <Button asChild variant="act">
              <Link to={`/lay-day/${lay.id}`}>Continue</Link>
            </Button>
          </chakra.li>
        ))}
      </chakra.ul>
    </section>
  )
}

function Expected({ dam }: { dam: Dam }) {
  const { forecast } = dam
  if (!forecast) return null
  return (
    <div>
      <Notice label={dam.name}>
        {forecast.window ? (
          <>
            lays <strong>{dayRange(forecast.window.p10, forecast.window.p90)}</strong>, most likely{' '}
            {day(forecast.window.p50)}.
          </>
        ) : (
          'is longer past her sign than is usual: feel for eggs.'
        )}{' '}
        <Link to={`/animals/${dam.dam}`}>
          <Span textDecoration="underline" color="yolkInk" fontWeight="semibold">
            What to prepare
          </Span>
        </Link>
      </Notice>
      <Box ps={5}>
        <Preparations dam={dam} dueOnly />
      </Box>
    </div>
  )
}

function CabinetsReady() {
  const readiness = useReadiness()
  if (!readiness.data?.length) return null
  return (
    <chakra.ul display="grid" gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }} gap={4}>
      {readiness.data.map((cabinet) => (
        <li key={cabinet.cabinet}>
          <strong>{cabinet.cabinet}</strong>
          <Readiness cabinet={cabinet} />
        </li>
      ))}
    </chakra.ul>
  )
}

/** Dams with something due, or flagged; the others are on their pages. */
function AfterLaying() {
  const after = useAfterLaying()
  // Whoever is flagged stands first on the page.
  const due = after.data?.filter((dam) => !dam.flags.length && dam.items.some((i) => i.due)) ?? []
  if (due.length === 0) return null
  return (
    <section aria-labelledby="after-laying">
      <Heading id="after-laying">Dams after laying</Heading>
      <chakra.ul display="flex" flexDirection="column" gap={2}>
        {due.map((dam) => (
          <li key={dam.dam}>
            <Link to={`/animals/${dam.dam}`}>
              <Notice label={dam.name}>
                {dam.items
                  .filter((item) => item.due)
                  .map((item) => item.text)
                  .join(' ')}
              </Notice>
            </Link>
          </li>
        ))}
      </chakra.ul>
    </section>
  )
}
