import { Box, Grid, NativeSelect, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { Link } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { day } from '@/shared/dates'
import { token } from '@/shared/theme/token'

type Water = Schemas['BoxWaterResponse']
type Left = Schemas['WaterLeftResponse']

/** What is left of the box's water, when it runs short, and what if it were closed otherwise. */
export function BoxWater({ box, water }: { box: string; water: Water }) {
  const rules = useRules().data
  if (!water.left) {
    return (
      <Text color="soft">
        How much water went in was not recorded, so nobody can say what is left. Weigh the box at
        its next visits: two weighings tell what it loses.
      </Text>
    )
  }
  const { left } = water
  return (
    <Stack gap={3}>
      <Text>
        <Strong fontSize="larger">{Math.round(left.share * 100)} %</Strong> of its water left, about{' '}
        {Math.round(left.water_g)} g{likelyRange(left.share_low, left.share_high)}.
      </Text>
      <Level left={left} marks={rules?.water_shares} />
      <p>
        Losing about {left.loss_g_day.toFixed(1)} g a day ({left.loss_low_g_day.toFixed(1)} to{' '}
        {left.loss_high_g_day.toFixed(1)}). <Band name="Half gone" band={left.top_up_soon} />{' '}
        <Band name="Dry" band={left.dry} />
      </p>
      <Text color="soft" fontSize="small">
        {restsOn(water)}{' '}
        <Link to={`/settings/numbers#${encodeURIComponent(`exchange.${water.closing}`)}`}>
          <Span color="yolkInk" textDecoration="underline">
            Why?
          </Span>
        </Link>
      </Text>
      <Air water={water} />
      <WhatIf box={box} closing={water.closing} />
    </Stack>
  )
}

function restsOn({ left, learned_from, closing, cabinet_humidity }: Water): string {
  const air =
    cabinet_humidity === null
      ? 'the cabinet\u2019s humidity is not measured'
      : `cabinet at ${Math.round(cabinet_humidity * 100)} % humidity`
  if (left && left.weighings > 1) return `By ${left.weighings} weighings; ${air}.`
  const learned = learned_from
    ? `, learned from ${learned_from} other ${learned_from === 1 ? 'box' : 'boxes'} closed so`
    : ', before any weighing'
  return `By physics: ${closing}, ${air}${learned}. Weighing it makes this sharp.`
}

/** The tray from 0 to 100 %, the band lighter, the middle a line, the two limits marked. */
function Level({
  left,
  marks,
}: {
  left: Left
  marks: { top_up: number; dry: number } | undefined
}) {
  const x = (share: number) => `${share * 100}%`
  return (
    <svg width="100%" height={26} role="img" aria-label={`${Math.round(left.share * 100)} % left`}>
      <rect width="100%" height={26} fill={token('faint')} />
      <rect width={x(left.share_low)} height={26} fill={token('cold1')} />
      <rect
        x={x(left.share_low)}
        width={x(left.share_high - left.share_low)}
        height={26}
        fill={token('cold1')}
        opacity={0.45}
      />
      <rect x={x(left.share)} width={3} height={26} fill={token('ink')} />
      {marks &&
        [marks.top_up, marks.dry].map((share) => (
          <line
            key={share}
            x1={x(share)}
            x2={x(share)}
            y1={0}
            y2={26}
            stroke={token('vessel')}
            strokeWidth={2}
            strokeDasharray="4 4"
          />
        ))}
    </svg>
  )
}

function Band({ name, band }: { name: string; band: Schemas['DateBandResponse'] }) {
  if (band.middle === null) {
    return <span>{name}: not before this clutch is out.</span>
  }
  const late = band.late === null ? 'or much later' : `to ${day(band.late)}`
  return (
    <span>
      {name} about <strong>{day(band.middle)}</strong> ({band.early && day(band.early)} {late}).
    </span>
  )
}

function Air({ water }: { water: Water }) {
  const { air } = water
  if (!air) return null
  const percent = (share: number) => (share * 100).toFixed(0)
  return (
    <Text
      color={air.advise_airing ? 'ink' : 'soft'}
      fontWeight={air.advise_airing ? 'semibold' : 400}
    >
      Air: oxygen likely about {percent(air.share)} % ({percent(air.low)} to {percent(air.high)}), a
      rough estimate.{' '}
      {air.advise_airing
        ? 'Open the lid for a minute, or crack a corner.'
        : air.may_need_airing
          ? 'Air it when you are there.'
          : 'Enough.'}
    </Text>
  )
}

const HUMIDITIES = [40, 50, 60, 70, 80, 90]

function WhatIf({ box, closing }: { box: string; closing: Schemas['Closing'] }) {
  const [other, setOther] = useState<Schemas['Closing'] | ''>('')
  const [humidity, setHumidity] = useState('')
  const fields = useId()
  const closings = useRules().data?.closings ?? []
  const asked = other !== '' || humidity !== ''
  const told = useQuery({
    queryKey: ['water', box, other, humidity],
    enabled: asked,
    queryFn: () =>
      answer(
        api.GET('/api/boxes/{name}/water', {
          params: {
            path: { name: box },
            query: {
              ...(other && { closing: other }),
              ...(humidity && { humidity: Number(humidity) / 100 }),
            },
          },
        }),
      ),
  })
  return (
    <Box>
      <Grid templateColumns="1fr 1fr" gap={3}>
        <div>
          <label htmlFor={`${fields}-closing`}>What if closed with</label>
          <NativeSelect.Root>
            <NativeSelect.Field
              id={`${fields}-closing`}
              value={other}
              onChange={(event) => setOther(event.target.value as Schemas['Closing'] | '')}
            >
              <option value="">{closing}, as now</option>
              {closings
                .filter((c) => c !== closing)
                .map((c) => (
                  <option key={c} value={c}>
                    {c}
                  </option>
                ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        </div>
        <div>
          <label htmlFor={`${fields}-humidity`}>in a cabinet at</label>
          <NativeSelect.Root>
            <NativeSelect.Field
              id={`${fields}-humidity`}
              value={humidity}
              onChange={(event) => setHumidity(event.target.value)}
            >
              <option value="">its own humidity</option>
              {HUMIDITIES.map((percent) => (
                <option key={percent} value={percent}>
                  {percent} %
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        </div>
      </Grid>
      {asked && told.data && (
        <Text mt={2} role="status">
          Then about {told.data.loss_g_day.toFixed(1)} g a day.{' '}
          <Band name="Half gone" band={told.data.top_up_soon} />{' '}
          <Band name="Dry" band={told.data.dry} />
        </Text>
      )}
    </Box>
  )
}

/** The likely range of what is left, where it is one. */
function likelyRange(low: number, high: number): string {
  const [from, to] = [Math.round(low * 100), Math.round(high * 100)]
  return from === to ? '' : `; likely between ${from} and ${to} %`
}
