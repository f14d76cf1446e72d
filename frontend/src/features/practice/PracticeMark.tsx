import { Text } from '@chakra-ui/react'
import { Link } from 'react-router'

/** Says on every page of it that this is no egg of the house. */
export function PracticeMark() {
  return (
    <Text
      borderBottom="3px double"
      borderColor="yolkInk"
      pb={1}
      mb={4}
      fontWeight="semibold"
      color="yolkInk"
    >
      <Link to="/practice">Practice</Link>: simulated eggs. Nothing here is recorded in the house.
    </Text>
  )
}
