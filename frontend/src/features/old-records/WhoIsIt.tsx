import { Box, Flex, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { Button } from '@/shared/ui/Button'
import { Pick } from '@/shared/ui/Pick'
import type { Name, NameAnswer } from './queries'

type Animal = Schemas['AnimalResponse']

/** Asks who a name on a list is: one of those it is nearly, another known one, or a new animal. */
export function WhoIsIt({
  name,
  animals = [],
  onAnswer,
}: {
  name: Name
  /** Others it may be. */
  animals?: Animal[]
  onAnswer: (answer: NameAnswer) => void
}) {
  const answer = (told: Pick<NameAnswer, 'animal' | 'new_role'>) =>
    onAnswer({ name: name.name, role: name.role, animal: null, new_role: null, ...told })
  const roles = name.role ? [name.role] : (['dam', 'sire'] as const)
  const others = animals.filter(
    ({ id, role }) =>
      (name.role === null || role === name.role) && !name.near.some((near) => near.id === id),
  )
  return (
    <Box py={2} role="group" aria-label={name.name}>
      <Text>
        <strong>{name.name}</strong>: {name.why}
      </Text>
      <Flex gap={2} wrap="wrap" mt={2} align="center">
        {name.near.map(({ id, name: known }) => (
          <Button key={id} type="button" onClick={() => answer({ animal: id })}>
            It is {known}
          </Button>
        ))}
        {name.may_be_new &&
          roles.map((role) => (
            <Button key={role} type="button" onClick={() => answer({ new_role: role })}>
              A new {role}
            </Button>
          ))}
        {others.length > 0 && (
          <Pick
            label={`Who ${name.name} is`}
            value=""
            options={[
              { value: '', label: 'another one' },
              ...others.map(({ id, name: known }) => ({ value: String(id), label: known })),
            ]}
            onPick={(id) => id && answer({ animal: Number(id) })}
          />
        )}
      </Flex>
    </Box>
  )
}
