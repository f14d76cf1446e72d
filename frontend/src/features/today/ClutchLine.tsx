import { chakra } from '@chakra-ui/react'
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
      <chakra.div
        display="grid"
        gridTemplateColumns={{ base: '104px 1fr', md: '132px 190px 1fr 220px' }}
        columnGap={{ base: 4, md: 6 }}
        rowGap={1}
        alignItems="center"
        py={3}
        _hover={{ bg: 'faint' }}
      >
        <chakra.div gridRow={{ base: 'span 3', md: 'auto' }}>
          <BoxDrawing
            eggs={clutch.eggs.map(asSmallLook)}
            medium=""
            width={128}
            label={eggsInWords(clutch)}
          />
        </chakra.div>
        <div>
          <chakra.div fontSize="1.5em" fontWeight={800} lineHeight={1.1}>
            {clutch.code}
          </chakra.div>
          <chakra.div color="soft">
            {clutch.dam}
            {clutch.sire ? ` × ${clutch.sire}` : ''}, {clutch.count}
          </chakra.div>
        </div>
        <Progress clutch={clutch} />
        <chakra.div textAlign={{ md: 'right' }}>
          {clutch.typical_pip && clutch.first_pip ? (
            <>
              <chakra.div>
                pips about{' '}
                <chakra.strong fontSize="1.15em">{day(clutch.typical_pip.p50)}</chakra.strong>
              </chakra.div>
              <chakra.div color="soft" fontSize="0.92em">
                first {dayRange(clutch.first_pip.p10, clutch.first_pip.p90)},{' '}
                {temperature(clutch.temperature_c, unit)}
              </chakra.div>
            </>
          ) : (
            <chakra.div fontWeight={600}>{clutch.attention[0]?.text ?? 'No forecast'}</chakra.div>
          )}
        </chakra.div>
      </chakra.div>
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
      <chakra.div display="flex" justifyContent="space-between" mb={1}>
        <span>
          day <strong>{clutch.day}</strong>
        </span>
        <strong>{developed(clutch.fraction)}</strong>
      </chakra.div>
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
