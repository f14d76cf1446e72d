import { Box, chakra, Text } from '@chakra-ui/react'
import { useMutation } from '@tanstack/react-query'
import { FormProvider, useForm } from 'react-hook-form'
import type { Problem } from '../api/client'
import { useWaiting } from '../offline/useDelivery'
import { Button } from '../ui/Button'
import { TextField } from '../ui/fields'
import { Notice, Title } from '../ui/page'
import { signInWith, useSessionChanged } from './session'

/** Who are you? Shown in place of any page while nobody is signed in. */
export function SignIn() {
  const form = useForm({ defaultValues: { name: '', passphrase: '' } })
  const changed = useSessionChanged()
  const { waiting } = useWaiting()
  const signIn = useMutation<unknown, Problem, { name: string; passphrase: string }>({
    mutationFn: signInWith,
    onSuccess: changed,
    onError: (problem) => form.setError('passphrase', { message: problem.detail }),
  })
  return (
    <Box maxWidth="26.25rem" mx="auto" pt={{ base: 4, md: 12 }}>
      <Title>Sign in</Title>
      {waiting > 0 && (
        <Box mt={4}>
          <Notice>What waits on this device goes to the house once you are signed in.</Notice>
        </Box>
      )}
      <FormProvider {...form}>
        <chakra.form noValidate mt={6} onSubmit={form.handleSubmit((said) => signIn.mutate(said))}>
          <TextField name="name" label="Your name" required autoComplete="username" />
          <TextField
            name="passphrase"
            label="Passphrase"
            type="password"
            required
            autoComplete="current-password"
          />
          <Button type="submit" variant="act" width="100%" disabled={signIn.isPending}>
            Sign in
          </Button>
        </chakra.form>
      </FormProvider>
      <Text color="soft" mt={6}>
        Forgotten? At the house's own machine, <code>sandboa people NAME</code> gives a new
        passphrase.
      </Text>
    </Box>
  )
}
