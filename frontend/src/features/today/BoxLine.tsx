import { Box, Flex, Grid, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import { BoxDrawing } from '@/eggs/BoxDrawing'
import type { Schemas } from '@/shared/api/client'
import { asSmallLook } from '@/shared/api/eggLook'
import { useRules } from '@/shared/api/queries'
import { day, dayRange } from '@/shared/dates'
import { isPressing } from '@/shared/rounds/urgency'
import { token } from '@/shared/theme/token'
import { developed, temperature, useTemperatureUnit } from '@/shared/units'

type TodayBox = Schemas['TodayBoxResponse']
type ClutchInBox = Schemas['ClutchInBoxResponse']

/** The clutch of most eggs in a box: where its page is. */
export const codeOf = (box: TodayBox): string => box.clutches[0]?.code ?? ''

/** A box on its shelf: as it looks, whose eggs lie in it, how far they are, and when they pip. */
export function BoxLine({ box }: { box: TodayBox }) {
  const unit = useTemperatureUnit()
  return (
    <Link to={`/clutches/${codeOf(box)}`}>
      <Grid
        templateColumns={{ base: '6.5rem 1fr', md: '8.25rem 11.875rem 1fr 13.75rem' }}
        columnGap={{ base: 4, md: 6 }}
        rowGap={1}
        alignItems="center"
        py={3}
        _hover={{ bg: 'faint' }}
      >
        <Box gridRow={{ base: 'span 3', md: 'auto' }}>
          <BoxDrawing
            eggs={box.eggs.map(asSmallLook)}
            medium=""
            width={128}
            label={eggsInWords(box)}
          />
        </Box>
        <div>
          <Box fontSize="larger" fontWeight="heavy" lineHeight={1.1}>
            {box.name}
          </Box>
          {box.clutches.map((clutch) => (
            <Box key={clutch.code} color="soft">
              {clutch.code !== box.name && `${clutch.code}: `}
              {clutch.dam}
              {clutch.sire ? ` × ${clutch.sire}` : ''}, {clutch.count}
              {clutch.expected && <Expected expected={clutch.expected} />}
            </Box>
          ))}
        </div>
        <div>
          {box.clutches.map((clutch) => (
            <Progress key={clutch.code} clutch={clutch} trouble={isPressing(box.urgency)} />
          ))}
        </div>
        <Box textAlign={{ md: 'right' }}>
          {box.clutches.some((clutch) => clutch.typical_pip) ? (
            box.clutches.map((clutch) => (
              <Pips
                key={clutch.code}
                clutch={clutch}
                temperature={temperature(box.temperature_c, unit)}
              />
            ))
          ) : (
            <Box fontWeight="semibold">{box.attention[0]?.text ?? 'No forecast'}</Box>
          )}
        </Box>
      </Grid>
    </Link>
  )
}

/** How many of the clutch's eggs are to hatch, and how many 80 % of the time. */
function Expected({ expected: { low, middle, high } }: { expected: Schemas['ExpectedResponse'] }) {
  return (
    <Box>
      expect <Strong color="ink">{middle}</Strong>
      {low !== high && ` (${low} to ${high})`}
    </Box>
  )
}

function Pips({ clutch, temperature }: { clutch: ClutchInBox; temperature: string }) {
  if (!clutch.typical_pip || !clutch.first_pip) return null
  return (
    <>
      <Box>
        pips about <Strong fontSize="large">{day(clutch.typical_pip.p50)}</Strong>
      </Box>
      <Box color="soft" fontSize="small">
        first {dayRange(clutch.first_pip.p10, clutch.first_pip.p90)}, {temperature}
      </Box>
    </>
  )
}

function Progress({ clutch, trouble }: { clutch: ClutchInBox; trouble: boolean }) {
  const share = Math.min(1, clutch.fraction)
  // Where the next grade of dents becomes normal.
  const stages = useRules().data?.dimple_stages ?? []
  return (
    <div>
      <Flex justify="space-between" mb={1}>
        <span>
          day <strong>{clutch.day}</strong>
        </span>
        <strong>{developed(clutch.fraction)}</strong>
      </Flex>
      <svg width="100%" height={14} aria-hidden style={{ display: 'block' }}>
        <rect width="100%" height={14} fill={token('faint')} />
        <rect width={`${share * 100}%`} height={14} fill={token(trouble ? 'vessel' : 'soft')} />
        {stages.map(({ development }) => (
          <rect
            key={development}
            x={`${development * 100}%`}
            width={2}
            height={14}
            fill={token('paper')}
          />
        ))}
      </svg>
    </div>
  )
}

/** "6 eggs, 4 of them early for their stage" */
function eggsInWords(box: TodayBox): string {
  const early = box.eggs.filter((egg) => egg.early).length
  const eggs = `${box.eggs.length} eggs`
  return early ? `${eggs}, ${early} of them early for their stage` : eggs
}
