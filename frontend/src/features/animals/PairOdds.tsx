import { chakra, HStack, Strong, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { breeds } from '@/shared/animals/individual'
import type { Schemas } from '@/shared/api/client'
import { Pick } from '@/shared/ui/Pick'
import { percent } from '@/shared/units'
import { oddsQuery } from './queries'

type Animal = Schemas['AnimalResponse']

/** What a dam and a sire can produce, what it may cost, and what hatched of them so far. */
export function PairOdds({ animals }: { animals: Animal[] }) {
  const dams = animals.filter((a) => a.role === 'dam' && breeds(a))
  const sires = animals.filter((a) => a.role === 'sire' && breeds(a))
  const [dam, setDam] = useState(dams[0]?.id)
  const [sire, setSire] = useState(sires[0]?.id)
  const odds = useQuery(oddsQuery(dam, sire))
  if (dams.length === 0 || sires.length === 0) return null
  return (
    <div>
      <HStack gap={3} mb={3} wrap="wrap">
        <Pick
          label="Dam of the pair"
          options={named(dams)}
          value={String(dam)}
          onPick={(id) => setDam(Number(id))}
        />
        <span>and</span>
        <Pick
          label="Sire of the pair"
          options={named(sires)}
          value={String(sire)}
          onPick={(id) => setSire(Number(id))}
        />
      </HStack>
      {odds.data && <Told odds={odds.data} />}
    </div>
  )
}

function Told({ odds }: { odds: Schemas['PairResponse'] }) {
  return (
    <>
      {odds.losses_words && (
        <Text color="vessel" fontWeight="semibold" mb={2}>
          {odds.losses_words}
        </Text>
      )}
      {odds.harmful > 0 && (
        <Text mb={2}>
          {percent(odds.harmful)} of its eggs get a double form you marked as harmful.
        </Text>
      )}
      <chakra.ul maxWidth="34em" aria-label="What the pair can produce">
        {odds.forms.map(({ words, chance }) => (
          <chakra.li
            key={words}
            display="grid"
            gridTemplateColumns="4.4em 1fr"
            gap={3}
            py={1}
            borderTop="1px solid"
            borderColor="line"
          >
            <Strong textAlign="right">{chanceWords(chance)}</Strong>
            <span>{words}</span>
          </chakra.li>
        ))}
      </chakra.ul>
      {odds.hatched.some((seen) => seen.of > 0) && (
        <chakra.ul mt={3} aria-label="What hatched of the pair">
          {odds.hatched.map(({ gene, words }) => (
            <li key={gene}>
              <strong>{gene}</strong>: {words}.
            </li>
          ))}
        </chakra.ul>
      )}
      {odds.proofs.length > 0 && (
        <chakra.ul mt={3} aria-label="What hatchlings say of possible traits">
          {odds.proofs.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </chakra.ul>
      )}
      {odds.unlisted.length > 0 && (
        <Text color="soft" mt={2}>
          Not on your list, and so not counted: {odds.unlisted.join(', ')}.
        </Text>
      )}
    </>
  )
}

/** "25 %", "12.5 %": halves are common here, and rounded they no longer sum to one. */
function chanceWords(chance: number): string {
  return `${Math.round(1000 * chance) / 10}\u00a0%`
}

function named(animals: Animal[]) {
  return animals.map(({ id, name }) => ({ value: String(id), label: name }))
}
