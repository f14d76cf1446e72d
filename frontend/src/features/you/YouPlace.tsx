import { Box, chakra, Flex, Stack, Text } from '@chakra-ui/react'
import { useMutation } from '@tanstack/react-query'
import { FormProvider, useForm } from 'react-hook-form'
import { Link } from 'react-router'
import { api, done, type Problem } from '@/shared/api/client'
import { ROLE_MEANS } from '@/shared/people/roles'
import { signInWith, useSession, useSessionChanged } from '@/shared/people/session'
import { Temperatures } from '@/shared/people/Temperatures'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { showProblem } from '@/shared/ui/toasts'
import { OwnSessions } from './OwnSessions'

/** Whoever is signed in: sign out here or everywhere, and another passphrase. */
export function Component() {
  const session = useSession()
  if (!session.data) return <Waiting problem={session.error?.message} />
  const { name, role } = session.data
  if (name === null || role === null) {
    return (
      <Box maxWidth="38.75rem">
        <Title>Nobody signs in here yet</Title>
        <Text mt={3}>
          This machine alone opens the house. People are added in{' '}
          <Link to="/settings">Settings</Link>.
        </Text>
      </Box>
    )
  }
  return (
    <Stack gap={8} maxWidth="38.75rem">
      <Box>
        <Title>{name}</Title>
        <Text color="soft" mt={1}>
          {role}: {ROLE_MEANS[role]}
        </Text>
      </Box>
      <section aria-labelledby="temperatures">
        <Heading id="temperatures">Temperatures</Heading>
        <Temperatures />
      </section>
      <SigningOut />
      <OwnPassphrase name={name} />
    </Stack>
  )
}

function SigningOut() {
  const changed = useSessionChanged()
  const options = {
    onSuccess: changed,
    onError: (problem: Problem) => showProblem(problem.detail),
  }
  const here = useMutation<true, Problem>({
    mutationFn: () => done(api.DELETE('/api/session')),
    ...options,
  })
  const everywhere = useMutation<true, Problem>({
    mutationFn: () => done(api.DELETE('/api/sessions')),
    ...options,
  })
  return (
    <section aria-labelledby="signing-out">
      <Heading id="signing-out">Where you are signed in</Heading>
      <OwnSessions />
      <Text color="soft" mb={3}>
        Visits that wait on this device stay on it until somebody signs in. A lost phone: sign it
        out above.
      </Text>
      <Flex gap={3} wrap="wrap">
        <Button type="button" disabled={here.isPending} onClick={() => here.mutate()}>
          Sign out here
        </Button>
        <Button type="button" disabled={everywhere.isPending} onClick={() => everywhere.mutate()}>
          Sign out everywhere
        </Button>
      </Flex>
    </section>
  )
}

type Said = { before: string; passphrase: string }

function OwnPassphrase({ name }: { name: string }) {
  const form = useForm<Said>({ defaultValues: { before: '', passphrase: '' } })
  const changed = useSessionChanged()
  const change = useMutation<true, Problem, Said>({
    mutationFn: async (body) => {
      await done(api.PUT('/api/session/passphrase', { body }))
      // Everybody with the old one is out, this device too: it comes in again with the new one.
      return signInWith({ name, passphrase: body.passphrase })
    },
    onSuccess: changed,
    onError: (problem) =>
      form.setError(problem.status === 401 ? 'before' : 'passphrase', {
        message: problem.detail,
      }),
  })
  return (
    <section aria-labelledby="passphrase">
      <Heading id="passphrase">Another passphrase</Heading>
      <FormProvider {...form}>
        <chakra.form noValidate onSubmit={form.handleSubmit((said) => change.mutate(said))}>
          <TextField
            name="before"
            label="The one you have now"
            type="password"
            required
            autoComplete="current-password"
          />
          <TextField
            name="passphrase"
            label="The new one"
            type="password"
            required
            autoComplete="new-password"
          />
          <Button type="submit" disabled={change.isPending}>
            Change it and sign out elsewhere
          </Button>
        </chakra.form>
      </FormProvider>
    </section>
  )
}
