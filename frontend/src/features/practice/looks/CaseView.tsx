import { chakra, Flex, Grid, Span, Stack, Text } from '@chakra-ui/react'
import { EggDrawing } from '@/eggs/EggDrawing'
import { Facts } from '@/shared/ui/Facts'
import { temperature, useTemperatureUnit } from '@/shared/units'
import type { Case } from '../queries'
import { Torch } from '../Torch'
import { boxOf, earlierOf, lookOf, pipsOf, signsOf } from './words'

/** An egg as eyes, torch, hand and nose find it, in its box, on its day. */
export function CaseView({ session, egg }: { session: number; egg: Case }) {
  const unit = useTemperatureUnit()
  const pips = pipsOf(egg)
  const box: [string, string][] = [
    ...boxOf(egg),
    ['Mean warmth', temperature(egg.box.mean_temperature_c, unit)],
  ]
  return (
    <Stack gap={4}>
      <Text fontSize="lead" fontWeight="semibold">
        Day {egg.day}
        {pips && <Span fontWeight="normal">. {pips}</Span>}
      </Text>
      <Grid
        templateColumns={{
          base: 'minmax(0, 2fr) minmax(0, 3fr)',
          sm: 'minmax(0, 1fr) minmax(0, 1fr)',
        }}
        gap={4}
        alignItems="center"
      >
        <Flex
          direction="column"
          align="center"
          gap={2}
          css={{ '& svg': { maxWidth: '100%', height: 'auto' } }}
        >
          <EggDrawing egg={lookOf(egg)} size={200} day={egg.day} />
          <Span color="soft" fontSize="small">
            as it lies
          </Span>
        </Flex>
        <Torch key={egg.egg} path={`/api/practice/looks/${session}/eggs/${egg.egg}/torch.webp`} />
      </Grid>
      <Grid
        templateColumns="repeat(auto-fit, minmax(min(14rem, 100%), 1fr))"
        columnGap={6}
        rowGap={4}
      >
        <Found name="The egg" facts={signsOf(egg)} />
        <Found name="Its box" facts={box} />
      </Grid>
      {egg.earlier.length > 0 && <Text color="soft">{earlierOf(egg).join('. ')}.</Text>}
    </Stack>
  )
}

function Found({ name, facts }: { name: string; facts: [string, string][] }) {
  return (
    <section aria-label={name}>
      <chakra.h3 fontWeight="bold" mb={1}>
        {name}
      </chakra.h3>
      <Facts facts={facts} />
    </section>
  )
}
