import { Text } from '@chakra-ui/react'
import { useQueryClient } from '@tanstack/react-query'
import { dayAndTime } from '../dates'
import { oldestShown } from './readAt'
import { useReach } from './useReach'

/** Says that the house does not answer, and how old what is shown is. */
export function OutOfReach() {
  const reached = useReach()
  const client = useQueryClient()
  if (reached) return null
  const oldest = oldestShown(client)
  return (
    <Text
      role="status"
      px={{ base: 4, md: 8 }}
      py={2}
      bg="vesselSoft"
      color="vessel"
      fontWeight="semibold"
      borderBottom="1.5px solid"
      borderColor="vessel"
    >
      The house is out of reach.
      {oldest !== null && ` What is shown was read on ${dayAndTime(new Date(oldest))}.`}
    </Text>
  )
}
