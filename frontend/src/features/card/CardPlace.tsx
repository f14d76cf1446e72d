import { Box, HStack, Text } from '@chakra-ui/react'
import { Link, useParams } from 'react-router'
import { useClutch } from '@/shared/api/queries'
import { under } from '@/shared/api/under'
import { ClutchCard } from '@/shared/card/ClutchCard'
import { zone } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Title, Waiting } from '@/shared/ui/page'
import { useTemperatureUnit } from '@/shared/units'

/** The card of a clutch, as it prints on A6. */
export function Component() {
  const { code = '' } = useParams()
  const clutch = useClutch(code)
  const unit = useTemperatureUnit()
  if (!clutch.data) return <Waiting problem={clutch.error?.message} />
  return (
    <div>
      <HStack gap={3} wrap="wrap" mb={6} _print={{ display: 'none' }}>
        <Title>Card of {clutch.data.code}</Title>
        <Button type="button" variant="act" onClick={() => window.print()}>
          Print on A6
        </Button>
        <Button asChild>
          <a
            href={under(
              `/api/cards.pdf?clutches=${clutch.data.code}&zone=${encodeURIComponent(zone())}&unit=${unit}`,
            )}
          >
            PDF
          </a>
        </Button>
        <Button asChild>
          <Link to={`/labels?clutches=${clutch.data.code}`}>Small labels</Link>
        </Button>
        <Button asChild>
          <Link to={`/clutches/${clutch.data.code}`}>To the clutch</Link>
        </Button>
      </HStack>
      <Box className="card-sheet" width={{ base: '100%', sm: '25rem' }}>
        <ClutchCard clutch={clutch.data} />
      </Box>
      <Text mt={4} color="soft" maxWidth="40rem" _print={{ display: 'none' }}>
        The code opens this clutch where phones reach the house: at the address it was opened to
        others with, else at the one you opened it with.
      </Text>
    </div>
  )
}
