import { chakra, Grid, Input, Span, Stack, Text } from '@chakra-ui/react'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { type ReactNode, useId, useState } from 'react'
import { Link } from 'react-router'
import { answer, api } from '@/shared/api/client'
import { dayRange, fromInputMoment, inputMoment } from '@/shared/dates'
import { USUAL_C } from '@/shared/forecast/usual'
import { Button } from '@/shared/ui/Button'
import { Heading, Title } from '@/shared/ui/page'
import { degrees, toCelsius, typedNumber, useTemperatureUnit } from '@/shared/units'

/** An empty house: three ways in, each to something useful within a few taps. */
export function FirstScreen({ now }: { now: string }) {
  return (
    <>
      <Title>Where do you begin?</Title>
      <Grid mt={6} templateColumns={{ base: '1fr', lg: '1.3fr 1fr 1fr' }} gap={{ base: 8, lg: 10 }}>
        <EggsAreHere now={now} />
        <Way
          id="before"
          name="Before the season"
          next={
            <>
              <Button asChild>
                <Link to="/animals/new">Enter an animal</Link>
              </Button>
              <Button asChild variant="bare">
                <Link to="/old-records">Bring old records</Link>
              </Button>
            </>
          }
        >
          Enter your animals, who was with whom, and what you saw: an ovulation, a pre-lay shed.
          Each dam's page then says between which days she lays and what has to be ready.
        </Way>
        <Way
          id="looking"
          name="Just looking"
          next={
            <>
              <Button asChild>
                <Link to="/practice">Practice on eggs</Link>
              </Button>
              <Button asChild variant="bare">
                <Link to="/bench">To the Bench</Link>
              </Button>
            </>
          }
        >
          In Practice you judge simulated eggs that cannot die. On the Bench you try things out:
          another set point, water for a medium. Nothing of either is recorded.
        </Way>
      </Grid>
    </>
  )
}

/** When they pip, from the two things that everybody knows: the answer comes before any form. */
function EggsAreHere({ now }: { now: string }) {
  const unit = useTemperatureUnit()
  const [laid, setLaid] = useState(() => inputMoment(now))
  const [typed, setTyped] = useState<string | null>(null)
  const [laidField, setField] = [useId(), useId()]
  const shown = typed ?? String(degrees(USUAL_C, unit))
  const setTo = toCelsius(typedNumber(shown), unit)
  const known = laid !== '' && Number.isFinite(setTo)
  const forecast = useQuery({
    queryKey: ['what-if', 'first', laid, setTo],
    enabled: known,
    retry: false,
    refetchInterval: false,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.POST('/api/bench/forecast', {
          params: { query: { laid_at: fromInputMoment(laid), set_point_c: setTo } },
        }),
      ),
  })
  const told = forecast.data?.forecast
  return (
    <Way
      id="here"
      name="Eggs are here now"
      next={
        <Button asChild variant="act">
          <Link to="/lay-day">Record the clutch</Link>
        </Button>
      }
    >
      <Grid templateColumns="minmax(0, 1fr) 7rem" gap={3} maxWidth="26rem">
        <chakra.label htmlFor={laidField} fontWeight="semibold">
          Laid
          <Input
            id={laidField}
            type="datetime-local"
            mt={1}
            value={laid}
            max={inputMoment(now)}
            onChange={(event) => setLaid(event.target.value)}
          />
        </chakra.label>
        <chakra.label htmlFor={setField} fontWeight="semibold">
          Kept at, °{unit}
          <Input
            id={setField}
            inputMode="decimal"
            mt={1}
            value={shown}
            onChange={(event) => setTyped(event.target.value)}
          />
        </chakra.label>
      </Grid>
      <chakra.div role="status" minHeight="4.5rem" mt={4}>
        {!known && <Span color="soft">A date and a temperature say when they pip.</Span>}
        {known && forecast.error && <Span color="vessel">{forecast.error.message}</Span>}
        {known && !forecast.error && told && <Answer told={told} />}
      </chakra.div>
    </Way>
  )
}

function Answer({
  told: { first_pip: first, late },
}: {
  told: { first_pip: { p10: string; p90: string } | null; late: string | null }
}) {
  if (late) return <Span>{late}</Span>
  if (!first) return <Span>At this temperature they never pip.</Span>
  return (
    <>
      <Span display="block" fontSize="large" fontWeight="heavy" lineHeight={1.2}>
        First pip {dayRange(first.p10, first.p90)}
      </Span>
      <Span color="soft" fontSize="small">
        in 8 of 10 clutches; recorded, it grows sharper with every reading
      </Span>
    </>
  )
}

function Way({
  id,
  name,
  children,
  next,
}: {
  id: string
  name: string
  children: ReactNode
  next: ReactNode
}) {
  return (
    <chakra.section
      aria-labelledby={`begin-${id}`}
      borderTop="5px solid"
      borderColor="line"
      pt={4}
      display="flex"
      flexDirection="column"
    >
      <Heading id={`begin-${id}`}>{name}</Heading>
      <Text as="div" mb={5}>
        {children}
      </Text>
      <Stack direction="row" wrap="wrap" gap={2} mt={{ lg: 'auto' }}>
        {next}
      </Stack>
    </chakra.section>
  )
}
