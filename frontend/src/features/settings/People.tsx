import { Box, chakra, Text } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm, useFormContext } from 'react-hook-form'
import { answer, api, done, type Problem, type Schemas } from '@/shared/api/client'
import { useAct, useRules } from '@/shared/api/queries'
import { readAgain } from '@/shared/api/readAgain'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { dayAndTime } from '@/shared/dates'
import { ROLE_MEANS, ROLES, type Role } from '@/shared/people/roles'
import { signInWith, useSession, useSessionChanged } from '@/shared/people/session'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { LineButton, ListedLine } from '@/shared/ui/ListedLine'
import { showProblem } from '@/shared/ui/toasts'
import { peopleQuery } from './queries'

type Person = Schemas['PersonResponse']

/** Who may come in, and as what. */
export function People() {
  const people = useQuery(peopleQuery)
  const session = useSession()
  return (
    <>
      <Text color="soft" mb={3}>
        {session.data?.sign_in ? (
          <>Everybody signs in, at this machine too. How phones come in stands under Phones.</>
        ) : (
          <>
            This machine alone opens the house, and nobody signs in. To let phones and other people
            in, add yourself as keeper and give yourself a passphrase: from then on everybody signs
            in, and the log says who recorded what.
          </>
        )}
      </Text>
      <chakra.ul mb={4}>
        {people.data?.map((person) => (
          <Line key={person.id} person={person} />
        ))}
      </chakra.ul>
      <AddPerson known={people.data !== undefined} first={people.data?.length === 0} />
    </>
  )
}

function Line({ person }: { person: Person }) {
  const [open, setOpen] = useState<'role' | 'passphrase' | null>(null)
  const path = { params: { path: { person: person.id } } }
  const client = useQueryClient()
  const remove = useAct(
    () => answer(api.DELETE('/api/people/{person}', path)),
    (act) => act,
  )
  const signOut = useMutation<true, Problem>({
    mutationFn: () => done(api.DELETE('/api/people/{person}/sessions', path)),
    onSuccess: () => readAgain(client),
    onError: (problem) => showProblem(problem.detail),
  })
  const toggle = (what: 'role' | 'passphrase') => setOpen(open === what ? null : what)
  return (
    <>
      <ListedLine
        name={
          <>
            <strong>{person.name}</strong>, {person.role}
          </>
        }
        more={signedIn(person)}
      >
        <LineButton doing={false} onClick={() => toggle('passphrase')}>
          {person.can_sign_in ? 'New passphrase' : 'Give a passphrase'}
        </LineButton>
        <LineButton doing={false} onClick={() => toggle('role')}>
          Name and role
        </LineButton>
        {person.sessions > 0 && (
          <LineButton doing={signOut.isPending} onClick={() => signOut.mutate()}>
            Sign out
          </LineButton>
        )}
        <LineButton doing={remove.isPending} onClick={() => remove.mutate()}>
          Remove
        </LineButton>
      </ListedLine>
      {open && (
        <chakra.li bg="faint" px={4} pt={4} pb={1} mb={2} borderRadius="small">
          {open === 'role' ? (
            <RoleForm person={person} onDone={() => setOpen(null)} />
          ) : (
            <PassphraseForm person={person} onDone={() => setOpen(null)} />
          )}
        </chakra.li>
      )}
    </>
  )
}

function signedIn(person: Person): string {
  if (!person.can_sign_in) return 'has no passphrase, cannot sign in'
  if (!person.last_seen_at) return 'not signed in anywhere'
  const browsers = person.sessions === 1 ? 'one device' : `${person.sessions} devices`
  return `signed in on ${browsers}, last seen ${dayAndTime(person.last_seen_at)}`
}

type NameAndRole = { name: string; role: Role }

/** Two fields of the form around them, by their labels; what the role may do stands below it. */
function NameAndRoleFields({ nameLabel, roleLabel }: { nameLabel: string; roleLabel: string }) {
  const form = useFormContext<NameAndRole>()
  return (
    <>
      <TextField name="name" label={nameLabel} required />
      <SelectField
        name="role"
        label={roleLabel}
        options={ROLES}
        help={ROLE_MEANS[form.watch('role')]}
      />
    </>
  )
}

function RoleForm({ person, onDone }: { person: Person; onDone: () => void }) {
  const form = useForm<NameAndRole>({ defaultValues: { name: person.name, role: person.role } })
  const correction = useCorrection({
    revision: person.revision,
    opened: { name: person.name, role: person.role },
    send: (body: NameAndRole, header) =>
      answer(
        api.PUT('/api/people/{person}', { params: { path: { person: person.id }, header }, body }),
      ),
    actOf: (act) => act,
    onDone,
  })
  return (
    <FormProvider {...form}>
      <form
        noValidate
        onSubmit={form.handleSubmit((said) =>
          correction.save(said, (problem) => form.setError('name', { message: problem.detail })),
        )}
      >
        <NameAndRoleFields nameLabel="Name" roleLabel="Role" />
        <Button type="submit" size="small" disabled={correction.pending} mb={3}>
          Keep
        </Button>
      </form>
      <BothVersions correction={correction} />
    </FormProvider>
  )
}

function PassphraseForm({ person, onDone }: { person: Person; onDone: () => void }) {
  const form = useForm({ defaultValues: { passphrase: '' } })
  const session = useSession()
  const changed = useSessionChanged()
  const client = useQueryClient()
  const shortest = useRules().data?.shortest_passphrase
  const own = session.data?.name === person.name
  const first = session.data?.sign_in === false
  const set = useMutation<true, Problem, { passphrase: string }>({
    mutationFn: async ({ passphrase }) => {
      await done(
        api.PUT('/api/people/{person}/passphrase', {
          params: { path: { person: person.id } },
          body: { passphrase },
        }),
      )
      // Whoever locks the door is inside: the first keeper, or whoever changed their own.
      return own || first ? signInWith({ name: person.name, passphrase }) : true
    },
    onSuccess: async () => {
      onDone()
      await (own || first ? changed() : readAgain(client))
    },
    onError: (problem) => form.setError('passphrase', { message: problem.detail }),
  })
  return (
    <FormProvider {...form}>
      <form noValidate onSubmit={form.handleSubmit((said) => set.mutate(said))}>
        <TextField
          name="passphrase"
          label={`Passphrase of ${person.name}`}
          type="password"
          required
          autoComplete="new-password"
          help={`At least ${shortest ?? ''} characters; four words that do not belong together are easy to type.`}
        />
        <Button type="submit" size="small" disabled={set.isPending} mb={3}>
          {first ? 'Keep it and sign in' : 'Keep it'}
        </Button>
      </form>
    </FormProvider>
  )
}

/** Whoever is `first` comes in as keeper; until it is `known` who there is, nobody is added. */
function AddPerson({ known, first }: { known: boolean; first: boolean }) {
  const form = useForm<NameAndRole>({
    values: { name: '', role: first ? 'keeper' : 'helper' },
    // Who there is may come in while somebody types.
    resetOptions: { keepDirtyValues: true },
  })
  const add = useAct(
    (body: NameAndRole) => answer(api.POST('/api/people', { body })),
    (act) => act,
    (problem) => form.setError('name', { message: problem.detail }),
  )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        display="grid"
        gridTemplateColumns={{ base: '1fr', md: '1fr 1.4fr auto' }}
        columnGap={4}
        onSubmit={form.handleSubmit((said) => add.mutate(said, { onSuccess: () => form.reset() }))}
      >
        <NameAndRoleFields nameLabel="Name of a person" roleLabel="Role" />
        <Box pt={{ md: '1.625rem' }}>
          <Button type="submit" disabled={!known || add.isPending}>
            Add
          </Button>
        </Box>
      </chakra.form>
    </FormProvider>
  )
}
