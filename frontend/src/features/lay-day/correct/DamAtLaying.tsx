import { chakra, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { Button } from '@/shared/ui/Button'
import { Choices } from '@/shared/ui/Choices'
import { TextField } from '@/shared/ui/fields'
import { Heading } from '@/shared/ui/page'
import { checkGrams, typedGrams } from '@/shared/units'

type Held = Schemas['DamAtLayingResponse']

/** What lay day said of the dam, put right: the lump felt, and what she weighed then. */
export function DamAtLaying({ code, dam }: { code: string; dam: string }) {
  const held = useQuery({
    queryKey: ['clutch', code, 'dam at laying'],
    queryFn: () =>
      answer(api.GET('/api/clutches/{code}/dam-at-laying', { params: { path: { code } } })),
    // What is typed stands on the version that was opened.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  })
  return (
    <section aria-labelledby="dam-at-laying">
      <Heading id="dam-at-laying">{dam} on lay day</Heading>
      {held.data ? (
        <Form code={code} held={held.data} />
      ) : (
        <Text color="soft">{held.error?.message ?? 'Reading\u2026'}</Text>
      )}
    </section>
  )
}

function Form({ code, held }: { code: string; held: Held }) {
  const navigate = useNavigate()
  const ranges = useRules().data?.grams
  const [lump, setLump] = useState(held.lump)
  const form = useForm({ defaultValues: { mass: held.mass_g?.toString() ?? '' } })
  const correction = useCorrection({
    revision: held.revision,
    opened: { lump: held.lump, mass_g: held.mass_g },
    send: (body: Schemas['DamAtLayingRequest'], header) =>
      answer(
        api.PUT('/api/clutches/{code}/dam-at-laying', {
          params: { path: { code }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone: () => navigate(`/clutches/${code}`),
  })
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-labelledby="dam-at-laying"
        maxWidth="40rem"
        display="flex"
        flexDirection="column"
        gap={4}
        onSubmit={form.handleSubmit(({ mass }) =>
          correction.save({ lump, mass_g: mass.trim() ? typedGrams(mass) : null }, ({ detail }) =>
            form.setError('mass', { message: detail }),
          ),
        )}
      >
        <Choices
          legend="Was a lump left?"
          columns={2}
          choices={[
            { value: 'none', label: 'No, hollow' },
            { value: 'unsure', label: 'Not sure' },
            { value: 'left', label: 'A lump was left' },
            { value: 'not felt', label: 'Nobody felt her' },
          ]}
          value={lump ?? 'not felt'}
          onChoose={(chosen) => setLump(chosen === 'not felt' ? null : (chosen as Held['lump']))}
        />
        <TextField
          name="mass"
          label="Her weight after laying, g; empty: not weighed"
          inputMode="decimal"
          check={(text) => checkGrams(text, ranges?.dam_g, { example: 1250 })}
        />
        <div>
          <Button type="submit" disabled={correction.pending}>
            Record what is right of her
          </Button>
        </div>
      </chakra.form>
      <BothVersions correction={correction} labels={{ lump: 'Lump', mass_g: 'Weight, g' }} />
    </FormProvider>
  )
}
