import { Box, chakra, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import type { Problem } from '@/shared/api/client'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'

/** Plain words, of as many lines as wanted. */
export function NoteForm({
  start = '',
  submitLabel,
  pending,
  when,
  onSubmit,
  onLeave,
}: {
  start?: string
  submitLabel: string
  pending: boolean
  when?: ReactNode
  onSubmit: (text: string, onRefused: (problem: Problem) => void) => void
  onLeave: () => void
}) {
  const form = useForm({ defaultValues: { text: start } })
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label="Note"
        maxWidth="44rem"
        onSubmit={form.handleSubmit(({ text }) =>
          onSubmit(text, ({ detail }) => form.setError('text', { message: detail })),
        )}
      >
        <TextField name="text" label="Note" lines={4} plain required />
        {when && <Box mb={3}>{when}</Box>}
        <Flex gap={3}>
          <Button type="submit" variant="act" disabled={pending}>
            {submitLabel}
          </Button>
          <Button type="button" variant="bare" onClick={onLeave}>
            Leave it
          </Button>
        </Flex>
      </chakra.form>
    </FormProvider>
  )
}
