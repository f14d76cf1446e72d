import { chakra, Grid, Span, Stack, Text } from '@chakra-ui/react'
import { Link, useSearchParams } from 'react-router'
import { useChoices, useProbes, useToday } from '@/shared/api/queries'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { ByHand } from './ByHand'
import { LoggerFile } from './LoggerFile'
import { ProbeList } from './ProbeList'
import { placesOf } from './places'

/** Temperature and humidity in: read by hand, or from a logger's file. */
export function Component() {
  const [asked] = useSearchParams()
  const choices = useChoices()
  const today = useToday()
  const probes = useProbes()
  if (!choices.data || !today.data || !probes.data) {
    return <Waiting problem={(choices.error ?? today.error ?? probes.error)?.message} />
  }
  const places = placesOf(choices.data, today.data, asked.get('clutch'))
  if (places.length === 0) {
    return (
      <>
        <Title>Readings</Title>
        <Text mt={4}>
          Readings belong to a place. Record a clutch first; its cabinet, shelf and box are the
          places.
        </Text>
      </>
    )
  }
  return (
    <>
      <Title>Readings</Title>
      <Grid templateColumns={{ base: '1fr', lg: '7fr 4fr' }} columnGap={12} rowGap={10} mt={6}>
        <chakra.section minWidth={0} aria-labelledby="file">
          <Heading id="file">A logger's file</Heading>
          <LoggerFile places={places} probes={probes.data} />
        </chakra.section>
        <Stack minWidth={0} gap={10}>
          <section aria-labelledby="by-hand">
            <Heading id="by-hand">By hand</Heading>
            <ByHand places={places} now={today.data.as_of} />
          </section>
          <section aria-labelledby="probes">
            <Heading id="probes">Probes</Heading>
            <ProbeList probes={probes.data} />
            <Text mt={4}>
              Sensors that send by themselves:{' '}
              <Link to="/heard">
                <Span textDecoration="underline">what is heard</Span>
              </Link>
            </Text>
          </section>
        </Stack>
      </Grid>
    </>
  )
}
