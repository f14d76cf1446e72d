import { Box, chakra, Flex, Grid, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link, NavLink, useParams } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { Alarms } from '@/shared/climate/Alarms'
import { useAlarms } from '@/shared/climate/useAlarms'
import { LogOf } from '@/shared/log/LogOf'
import { Notes } from '@/shared/notes/Notes'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { difference, temperature, useTemperatureUnit } from '@/shared/units'
import { AlarmLog } from './AlarmLog'
import { AlteredForm } from './AlteredForm'
import { CabinetDrawing } from './CabinetDrawing'
import { ChosenBox } from './ChosenBox'
import { ClimateTrace } from './climate/ClimateTrace'
import { Faults } from './Faults'
import { humidityInWords } from './inWords'
import { OtherSpecies } from './OtherSpecies'
import { HeldReadings } from './probes/HeldReadings'
import { Probes } from './probes/Probes'
import { useCabinet, useCabinets } from './queries'
import { SetPointForm } from './SetPointForm'

/** One cabinet: its drawing with boxes and probes, what its climate was and is, its probes. */
export function Component() {
  const { name } = useParams()
  const cabinets = useCabinets()
  const shown = name ?? cabinets.data?.[0]?.name
  if (!cabinets.data) return <Waiting problem={cabinets.error?.message} />
  if (!shown) return <NoCabinet />
  return <Shown key={shown} name={shown} cabinets={cabinets.data} />
}

function Shown({ name, cabinets }: { name: string; cabinets: Schemas['CabinetListedResponse'][] }) {
  const cabinet = useCabinet(name)
  const alarms = useAlarms()
  const [chosen, setChosen] = useState<string | null>(null)
  if (!cabinet.data) return <Waiting problem={cabinet.error?.message} />
  const own = alarms.data?.filter((a) => a.cabinet === cabinet.data.name) ?? []
  const open = own.filter((alarm) => !alarm.ended_at)
  return (
    <Stack gap={8}>
      <Head cabinet={cabinet.data} cabinets={cabinets} />
      {cabinet.data.kind === 'home-built' && <Caution moment="home-built cabinet" />}
      <HeldReadings probes={cabinet.data.probes} />
      {open.length > 0 && (
        <section aria-label="Alarms">
          <Alarms alarms={open} showCabinet={false} />
        </section>
      )}
      <Grid
        templateColumns={{ base: '1fr', lg: 'minmax(0, 7fr) minmax(0, 4fr)' }}
        columnGap={10}
        rowGap={8}
      >
        <chakra.section aria-label="Shelves" minWidth={0}>
          <CabinetDrawing cabinet={cabinet.data} chosen={chosen} onChoose={setChosen} />
          <ChosenBox cabinet={cabinet.data} cabinets={cabinets} name={chosen} />
          <OtherSpecies cabinet={cabinet.data} />
        </chakra.section>
        <chakra.section aria-labelledby="faults" minWidth={0}>
          <Heading id="faults">Faults</Heading>
          <Faults cabinet={cabinet.data} />
          <AlarmLog alarms={own.filter((alarm) => alarm.ended_at)} />
        </chakra.section>
      </Grid>
      <chakra.section aria-labelledby="climate" minWidth={0}>
        <Heading id="climate">Climate</Heading>
        <ClimateTrace cabinet={cabinet.data} />
      </chakra.section>
      <Grid
        templateColumns={{ base: '1fr', lg: 'minmax(0, 7fr) minmax(0, 4fr)' }}
        columnGap={10}
        rowGap={8}
      >
        <chakra.section aria-labelledby="probes" minWidth={0}>
          <Heading id="probes">Probes</Heading>
          <Probes cabinet={cabinet.data} />
        </chakra.section>
        <chakra.section aria-labelledby="set-point" minWidth={0}>
          <Heading id="set-point">Set point</Heading>
          <SetPointForm cabinet={cabinet.data} />
          <AlteredForm cabinet={cabinet.data.name} />
        </chakra.section>
      </Grid>
      <chakra.section aria-labelledby="notes" minWidth={0}>
        <Heading id="notes">Notes</Heading>
        <Notes about={cabinet.data.id} />
      </chakra.section>
      <chakra.section aria-labelledby="log" minWidth={0}>
        <Heading id="log">Log</Heading>
        <LogOf about={cabinet.data.id} />
      </chakra.section>
    </Stack>
  )
}

function Head({
  cabinet,
  cabinets,
}: {
  cabinet: Schemas['CabinetResponse']
  cabinets: Schemas['CabinetListedResponse'][]
}) {
  const unit = useTemperatureUnit()
  const { here } = cabinet
  const rules = useRules().data?.climate
  const facts = [
    cabinet.set_point_c !== null ? `set to ${temperature(cabinet.set_point_c, unit)}` : null,
    cabinet.kind,
    cabinet.volume_l ? `${cabinet.volume_l} l` : null,
    cabinet.ballast_l ? `${cabinet.ballast_l} l of water as ballast` : null,
  ]
  return (
    <Box>
      {cabinets.length > 1 && (
        <chakra.nav aria-label="Cabinets" display="flex" flexWrap="wrap" gap={4} mb={3}>
          {cabinets.map(({ name }) => (
            <NavLink key={name} to={`/cabinets/${encodeURIComponent(name)}`}>
              <Span
                display="flex"
                alignItems="center"
                minHeight="thumbSmall"
                fontWeight={name === cabinet.name ? 'bold' : 'medium'}
                color={name === cabinet.name ? 'ink' : 'soft'}
                textDecoration={name === cabinet.name ? 'none' : 'underline'}
                textUnderlineOffset="3px"
              >
                {name}
              </Span>
            </NavLink>
          ))}
        </chakra.nav>
      )}
      <Flex wrap="wrap" align="flex-end" columnGap={6} rowGap={3}>
        <div>
          <Title>{cabinet.name}</Title>
          <Text color="soft" mt={1}>
            {facts.filter(Boolean).join(', ')}
          </Text>
        </div>
        {here.temperature_c !== null && (
          <Text lineHeight={1.1}>
            <Strong fontSize="figure" fontWeight="heavy">
              {temperature(here.temperature_c, unit)}
            </Strong>
            <Span color="soft" ms={3}>
              {here.swing_c !== null && `swing ${difference(here.swing_c, unit)} in 24 h`}
              {cabinet.humidity !== null &&
                `, ${humidityInWords(cabinet.humidity, rules?.saturated_humidity)}`}
            </Span>
          </Text>
        )}
        <Flex marginStart={{ md: 'auto' }} wrap="wrap" gap={2}>
          <Button asChild>
            <Link to="/readings">Import readings</Link>
          </Button>
          <Button asChild variant="bare">
            <Link to={`/cabinets/${encodeURIComponent(cabinet.name)}/correct`}>Edit</Link>
          </Button>
          <Button asChild variant="bare">
            <Link to="/cabinets/new">Add a cabinet</Link>
          </Button>
        </Flex>
      </Flex>
      <Text mt={3}>{cabinet.readiness}</Text>
    </Box>
  )
}

function NoCabinet() {
  return (
    <Box maxWidth="44rem">
      <Title>No cabinet yet</Title>
      <Text mt={4} mb={6} fontSize="lead">
        A cabinet has shelves and a set point. Put a logger in it well before the first egg: whether
        it is ready is measured.
      </Text>
      <Button asChild variant="act">
        <Link to="/cabinets/new">Set up a cabinet</Link>
      </Button>
    </Box>
  )
}
