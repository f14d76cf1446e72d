import { chakra } from '@chakra-ui/react'
import { Link } from 'react-router'

/** A page that is not there, or that failed to open. */
export function Lost() {
  return (
    <chakra.div py={12}>
      <chakra.h1 fontSize="1.8em" fontWeight={800} mb={2}>
        There is nothing here
      </chakra.h1>
      <chakra.p mb={4}>The address may be of a clutch that was undone, or mistyped.</chakra.p>
      <Link to="/">
        <chakra.span textDecoration="underline" color="yolkInk" fontWeight={650}>
          To Today
        </chakra.span>
      </Link>
    </chakra.div>
  )
}
