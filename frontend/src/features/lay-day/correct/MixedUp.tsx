import { Box, chakra, Flex, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { fromInputMoment } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Chips } from '@/shared/ui/Chips'
import { Choices } from '@/shared/ui/Choices'
import { TextField } from '@/shared/ui/fields'
import { Heading } from '@/shared/ui/page'

type What = 'numbers' | 'findings'

/** Two eggs that were taken for one another: their numbers, or what was seen of them since. */
export function MixedUp({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const [eggs, setEggs] = useState<string[]>([])
  const [what, setWhat] = useState<What>('numbers')
  const form = useForm({ defaultValues: { since: '', until: '' } })
  const swap = useAct(
    (body: Schemas['SwapRequest']) =>
      answer(
        api.POST('/api/clutches/{code}/eggs/swapped', {
          params: { path: { code: clutch.code } },
          body,
        }),
      ),
    (act) => act,
    (problem) =>
      form.setError(problem.fields[0]?.field === 'until' ? 'until' : 'since', {
        message: problem.detail,
      }),
  )
  const [one, other] = eggs.map(Number)
  const findings = what === 'findings'
  // The third one tapped takes the place of the first.
  const choose = (egg: string) =>
    setEggs(eggs.includes(egg) ? eggs.filter((held) => held !== egg) : [...eggs, egg].slice(-2))
  if (clutch.eggs.length < 2) return null
  return (
    <section aria-labelledby="mixed-up">
      <Heading id="mixed-up">Two eggs mixed up</Heading>
      <FormProvider {...form}>
        <chakra.form
          noValidate
          maxWidth="40rem"
          display="flex"
          flexDirection="column"
          gap={4}
          onSubmit={form.handleSubmit(({ since, until }) => {
            if (one === undefined || other === undefined) return
            swap.mutate(
              {
                one,
                other,
                since: findings && since ? fromInputMoment(since) : null,
                until: findings && until ? fromInputMoment(until) : null,
              },
              { onSuccess: () => setEggs([]) },
            )
          })}
        >
          <Chips
            legend="Which two"
            chips={clutch.eggs.map(({ number }) => ({
              value: String(number),
              label: String(number),
            }))}
            on={eggs}
            onToggle={choose}
          />
          <Choices<What>
            legend="What was the other's"
            columns={2}
            choices={[
              { value: 'numbers', label: 'Their numbers' },
              { value: 'findings', label: 'What was seen of them' },
            ]}
            value={what}
            onChoose={setWhat}
          />
          <Text color="soft">
            {findings
              ? 'They lie where they lie; dents, torch, signs and pips of that time change places.'
              : 'All that is recorded of an egg stays with it; only what it is called changes.'}
          </Text>
          {findings && (
            <Box>
              <TextField
                name="since"
                label="Seen since"
                type="datetime-local"
                required
                asked={() => findings}
              />
              <TextField name="until" label="Until, if not until now" type="datetime-local" />
            </Box>
          )}
          <Flex>
            <Button type="submit" disabled={eggs.length < 2 || swap.isPending}>
              {eggs.length < 2 ? 'Swap them' : `Swap ${eggs.join(' and ')}`}
            </Button>
          </Flex>
        </chakra.form>
      </FormProvider>
    </section>
  )
}
