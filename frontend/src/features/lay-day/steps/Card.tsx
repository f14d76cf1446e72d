import { Box, Flex, Text } from '@chakra-ui/react'
import { Link } from 'react-router'
import { useClutch } from '@/shared/api/queries'
import { ClutchCard } from '@/shared/card/ClutchCard'
import { ClutchPhotos } from '@/shared/photos/ClutchPhotos'
import { Button } from '@/shared/ui/Button'
import { Waiting } from '@/shared/ui/page'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'

/** The card of the clutch just recorded, to print and stick to the box. */
export function Card({ day, step, back, next }: StepProps) {
  const clutch = useClutch(day.clutch ?? '')
  if (!clutch.data) return <Waiting problem={clutch.error?.message} />
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      nextLabel="Card is on, next"
      photos={<ClutchPhotos clutch={clutch.data} step="card" />}
      onSubmit={(event) => {
        event.preventDefault()
        next()
      }}
    >
      <Text fontSize="large">
        Recorded as <strong>{clutch.data.code}</strong>.
      </Text>
      <Box maxWidth="22.5rem">
        <ClutchCard clutch={clutch.data} />
      </Box>
      <Flex gap={3} wrap="wrap">
        <Button asChild>
          <Link to={`/clutches/${clutch.data.code}/card`} target="_blank">
            Print the card
          </Link>
        </Button>
        <Button asChild>
          <Link to={`/labels?clutches=${clutch.data.code}`} target="_blank">
            Print a label
          </Link>
        </Button>
      </Flex>
    </StepFrame>
  )
}
