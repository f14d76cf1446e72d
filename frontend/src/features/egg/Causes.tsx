import { Box, chakra, Span, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'

/** Early dents while there is time: dry box, shell or failing egg, by the numbers. */
export function Causes({ causes }: { causes: Schemas['CauseResponse'][] }) {
  return (
    <Box mt={5}>
      <chakra.h3 fontWeight="bold">
        Why is it dented early?{' '}
        <Link to="/settings/numbers#Causes of dents">
          <Span color="yolkInk" fontWeight="medium" textDecoration="underline">
            The rule and its numbers
          </Span>
        </Link>
      </chakra.h3>
      <chakra.ul mt={1}>
        {causes.map(({ cause, share, reasons }) => (
          <chakra.li key={cause} display="flex" gap={3} py="3px">
            <Strong width="3.2em" textAlign="right" flexShrink={0}>
              {Math.round(share * 100)} %
            </Strong>
            <span>
              {cause}
              {reasons.length > 0 && (
                <Span color="soft" fontSize="small">
                  {' '}
                  {reasons.join('; ')}
                </Span>
              )}
            </span>
          </chakra.li>
        ))}
      </chakra.ul>
    </Box>
  )
}
