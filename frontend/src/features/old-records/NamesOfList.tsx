import { chakra, Span, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import type { Name, NameAnswer } from './queries'
import { WhoIsIt } from './WhoIsIt'

/** The names on a list that have to be told, and those that will be recorded as new animals. */
export function NamesOfList({
  names,
  animals,
  onAnswer,
}: {
  names: Name[]
  animals: Schemas['AnimalResponse'][]
  onAnswer: (answer: NameAnswer) => void
}) {
  const asked = names.filter(({ animal, new_role }) => animal === null && new_role === null)
  const made = (role: string) => names.filter(({ new_role }) => new_role === role)
  return (
    <>
      {asked.length > 0 && (
        <section aria-label="Names to tell">
          <Text fontWeight="bold">Who is that?</Text>
          {asked.map((name) => (
            <WhoIsIt
              key={`${name.name} ${name.role}`}
              name={name}
              animals={animals}
              onAnswer={onAnswer}
            />
          ))}
        </section>
      )}
      {(['dam', 'sire'] as const).map((role) => {
        const own = made(role)
        if (own.length === 0) return null
        return (
          <chakra.details key={role}>
            <chakra.summary cursor="pointer" minHeight="2.5rem">
              <strong>
                {own.length} new {own.length === 1 ? role : `${role}s`}
              </strong>{' '}
              <Span color="soft">will be recorded with them</Span>
            </chakra.summary>
            <Text maxWidth="44rem">{own.map(({ name }) => name).join(', ')}</Text>
          </chakra.details>
        )
      })}
    </>
  )
}
