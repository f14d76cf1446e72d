import { Box, chakra, Flex, Grid, Span, Stack, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { counted } from '@/shared/counted'
import { ActBar } from '@/shared/ui/ActBar'
import { Button } from '@/shared/ui/Button'
import { Title, Waiting } from '@/shared/ui/page'
import { percent, temperature, useTemperatureUnit } from '@/shared/units'
import { PracticeMark } from '../PracticeMark'
import { type KeptSeason, type Move, seasonQuery, useKeep } from '../queries'
import { KeptBoxCard } from './KeptBoxCard'
import { SeasonTold } from './SeasonTold'

/** A season of simulated boxes, kept day by day; told once it is over. */
export function Component() {
  const id = Number(useParams().id)
  const season = useQuery(seasonQuery(id))
  if (!season.data) return <Waiting problem={season.error?.message} />
  return (
    <Box maxWidth="72rem">
      <PracticeMark />
      <Flex align="baseline" gap={4} wrap="wrap" mb={4}>
        <Title>{season.data.over ? 'The season is over' : `Day ${season.data.day}`}</Title>
        <Span color="soft">
          seed {season.data.seed}, {season.data.difficulty},{' '}
          {season.data.school && `${season.data.school}, `}
          {counted(season.data.boxes.length, 'box', 'boxes')}
          {season.data.hatched > 0 && `, ${season.data.hatched} hatched`}
        </Span>
      </Flex>
      {season.data.over ? <SeasonTold season={season.data} /> : <ADay season={season.data} />}
    </Box>
  )
}

function ADay({ season }: { season: KeptSeason }) {
  const keep = useKeep(season)
  const act = (move: Move) => keep.mutate(move)
  return (
    <>
      <Stack gap={6}>
        <Cabinet season={season} onMend={() => act({ what: 'mend' })} />
        {keep.error && (
          <Text role="alert" color="vessel" fontWeight="semibold">
            {keep.error.detail}
          </Text>
        )}
        <Grid
          templateColumns={{ base: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' }}
          gap={5}
          alignItems="start"
        >
          {season.boxes.map((box) => (
            <KeptBoxCard key={box.place} season={season} box={box} onAct={act} />
          ))}
        </Grid>
      </Stack>
      <ActBar>
        <Button
          type="button"
          variant="act"
          flex="2"
          disabled={keep.isPending}
          onClick={() => act({ days: 1 })}
        >
          Next day
        </Button>
        {[3, 7].map((days) => (
          <Button
            key={days}
            type="button"
            flex="1"
            disabled={keep.isPending}
            onClick={() => act({ days })}
          >
            {days} days
          </Button>
        ))}
      </ActBar>
    </>
  )
}

/** The cabinet's thermometers, read without opening it. */
function Cabinet({ season, onMend }: { season: KeptSeason; onMend: () => void }) {
  const unit = useTemperatureUnit()
  return (
    <section aria-label="The cabinet">
      <Flex wrap="wrap" columnGap={8} rowGap={2} align="center">
        <Text color="soft">Set to {temperature(season.set_point_c, unit)}</Text>
        <chakra.ul display="flex" flexWrap="wrap" columnGap={8} rowGap={1}>
          {season.shelves.map((shelf) => (
            <li key={shelf.name}>
              {shelf.name}{' '}
              <Span fontWeight="bold" fontSize="lead">
                {temperature(shelf.mean_temperature_c, unit)}
              </Span>{' '}
              <Span color="soft">
                {temperature(shelf.lowest_temperature_c, unit)} to{' '}
                {temperature(shelf.highest_temperature_c, unit)}
              </Span>
            </li>
          ))}
        </chakra.ul>
        <Text color="soft">air {percent(season.humidity)}</Text>
        <Button type="button" size="small" onClick={onMend}>
          See to the cabinet
        </Button>
      </Flex>
    </section>
  )
}
