import { chakra, Span, Strong } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'

/** What the hatchlings of an animal make of each trait it possibly carries. */
export function Proofs({ proofs }: { proofs: Schemas['TraitProofResponse'][] }) {
  return (
    <ul>
      {proofs.map((proof) => (
        <chakra.li key={proof.gene} py={2} borderTop="1px solid" borderColor="line" maxWidth="44em">
          <Strong>{proof.gene}</Strong>: {proof.words}
          {proof.proved && ' Record it as carried where you correct the animal.'}
          {proof.by_mate.map((words) => (
            <Span key={words} color="soft" display="block">
              {words}
            </Span>
          ))}
        </chakra.li>
      ))}
    </ul>
  )
}
