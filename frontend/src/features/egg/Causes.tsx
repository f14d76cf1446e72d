import { chakra } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'

/** Early dents while there is time: dry box, shell or failing egg, by the numbers. */
export function Causes({ causes }: { causes: Schemas['CauseResponse'][] }) {
  return (
    <chakra.div mt={5}>
      <chakra.h3 fontWeight={750}>
        Why is it dented early?{' '}
        <Link to="/settings#Causes of dents">
          <chakra.span color="yolkInk" fontWeight={500} textDecoration="underline">
            The rule and its numbers
          </chakra.span>
        </Link>
      </chakra.h3>
      <chakra.ul listStyleType="none" mt={1}>
        {causes.map(({ cause, share, reasons }) => (
          <chakra.li key={cause} display="flex" gap={3} py="3px">
            <chakra.strong width="3.2em" textAlign="right" flexShrink={0}>
              {Math.round(share * 100)} %
            </chakra.strong>
            <span>
              {cause}
              {reasons.length > 0 && (
                <chakra.span color="soft" fontSize="0.92em">
                  {' '}
                  {reasons.join('; ')}
                </chakra.span>
              )}
            </span>
          </chakra.li>
        ))}
      </chakra.ul>
    </chakra.div>
  )
}
