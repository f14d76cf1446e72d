import { Box, Flex, Grid, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import { BoxDrawing } from '@/eggs/BoxDrawing'
import type { Schemas } from '@/shared/api/client'
import { asSmallLook } from '@/shared/api/eggLook'
import { useRules } from '@/shared/api/queries'
import { day, dayRange } from '@/shared/dates'
import { urgencyRank } from '@/shared/rounds/urgency'
import { token } from '@/shared/theme/token'
import { developed, temperature, useTemperatureUnit } from '@/shared/units'

type Clutch = Schemas['TodayClutchResponse']

/** A clutch on its shelf: the box as it looks, how far it is, and when it pips. */
export function ClutchLine({ clutch }: { clutch: Clutch }) {
  const unit = useTemperatureUnit()
  return (
    <Link to={`/clutches/${clutch.code}`}>
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
            eggs={clutch.eggs.map(asSmallLook)}
            medium=""
            width={128}
            label={eggsInWords(clutch)}
          />
        </Box>
        <div>
          <Box fontSize="larger" fontWeight="heavy" lineHeight={1.1}>
            {clutch.code}
          </Box>
          <Box color="soft">
            {clutch.dam}
            {clutch.sire ? ` × ${clutch.sire}` : ''}, {clutch.count}
          </Box>
        </div>
        <Progress clutch={clutch} />
        <Box textAlign={{ md: 'right' }}>
          {clutch.typical_pip && clutch.first_pip ? (
            <>
              <Box>
                pips about <Strong fontSize="large">{day(clutch.typical_pip.p50)}</Strong>
              </Box>
              <Box color="soft" fontSize="small">
                first {dayRange(clutch.first_pip.p10, clutch.first_pip.p90)},{' '}
                {temperature(clutch.temperature_c, unit)}
              </Box>
            </>
          ) : (
            <Box fontWeight="semibold">{clutch.attention[0]?.text ?? 'No forecast'}</Box>
          )}
        </Box>
      </Grid>
    </Link>
  )
}

function Progress({ clutch }: { clutch: Clutch }) {
  const share = Math.min(1, clutch.fraction)
  // Where the next grade of dents becomes normal.
  const stages = useRules().data?.dimple_stages ?? []
  const trouble = urgencyRank(clutch.urgency) >= 2
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
function eggsInWords(clutch: Clutch): string {
  const early = clutch.eggs.filter((egg) => egg.early).length
  const eggs = `${clutch.eggs.length} eggs`
  return early ? `${eggs}, ${early} of them early for their stage` : eggs
}
