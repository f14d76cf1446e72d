import { Stack, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useAnimals, useRules } from '@/shared/api/queries'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { HandLines } from './HandLines'
import { PastList } from './PastList'
import { pastClutchesQuery } from './queries'
import { RecordFile } from './RecordFile'

/** Ten years of cards: typed in line by line, or taken from a list; and what came of them. */
export function Component() {
  const animals = useAnimals()
  const past = useQuery(pastClutchesQuery)
  const rules = useRules()
  if (!animals.data || !past.data || !rules.data) {
    const error = animals.error ?? past.error ?? rules.error
    return <Waiting problem={error?.message} />
  }
  return (
    <Stack gap={10}>
      <Stack gap={2}>
        <Title>Old records</Title>
        <Text color="soft" maxWidth="44rem">
          Clutches of the years before. They count in the Seasons and on the pages of their parents;
          those with the day of the first pip also teach the forecasts.
        </Text>
      </Stack>
      <section aria-labelledby="by-hand">
        <Heading id="by-hand">By hand, a line for each card</Heading>
        <HandLines animals={animals.data} past={past.data} mostEggs={rules.data.most_eggs} />
      </section>
      <section aria-labelledby="from-a-list">
        <Heading id="from-a-list">From a list</Heading>
        <RecordFile animals={animals.data} largest={rules.data.largest_list_bytes} />
      </section>
      <section aria-labelledby="past">
        <Heading id="past">Past clutches</Heading>
        <PastList past={past.data} />
      </section>
    </Stack>
  )
}
