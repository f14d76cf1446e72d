import { chakra, Flex, Grid, HStack, Span, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { NEW, useCorrection } from '@/shared/corrections/useCorrection'
import { TIGHT } from '@/shared/theme/tight'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { genesQuery } from './queries'

type Gene = Schemas['GeneResponse']
type Body = Schemas['GeneRequest']
type Values = {
  name: string
  inheritance: Schemas['Inheritance']
  doubleForm: Schemas['DoubleForm']
}

const DOUBLE = {
  fine: '',
  harmful: 'double form harmful',
  dies: 'double form dies',
}

function useGenes() {
  return useQuery(genesQuery)
}

/** The keeper's own list of traits: how each is inherited, and what its double form does. */
export function GeneList() {
  const genes = useGenes().data ?? []
  const [adding, setAdding] = useState(false)
  const drop = useAct(
    (gene: number) => answer(api.DELETE('/api/genes/{gene}', { params: { path: { gene } } })),
    (act) => act,
  )
  return (
    <>
      <Text color="soft" mb={2} maxWidth="40em">
        What you hold for true of each trait; the odds of a pair and the causes of losses follow
        from it. Each is taken to be passed on by itself.
      </Text>
      <ul>
        {genes.map((gene) => (
          <OneGene key={gene.id} gene={gene} onDrop={() => drop.mutate(gene.id)} />
        ))}
      </ul>
      {adding ? (
        <GeneForm onDone={() => setAdding(false)} />
      ) : (
        <Button type="button" size="small" onClick={() => setAdding(true)}>
          Put a trait on the list
        </Button>
      )}
    </>
  )
}

function OneGene({ gene, onDrop }: { gene: Gene; onDrop: () => void }) {
  const [correcting, setCorrecting] = useState(false)
  return (
    <chakra.li borderTop="1px solid" borderColor="line" py={1}>
      <HStack gap={3} minHeight="thumbSmall" css={{ [TIGHT]: { flexWrap: 'wrap' } }}>
        <Span flex="1" css={{ [TIGHT]: { flexBasis: '100%' } }}>
          <strong>{gene.name}</strong> {gene.inheritance}
          {gene.double_form !== 'fine' && ', '}
          <Span color="vessel" fontWeight="semibold">
            {DOUBLE[gene.double_form]}
          </Span>
        </Span>
        <Button
          type="button"
          variant="bare"
          size="small"
          aria-label={`Change ${gene.name}`}
          onClick={() => setCorrecting(!correcting)}
        >
          Change
        </Button>
        <Button
          type="button"
          variant="bare"
          size="small"
          aria-label={`Take off ${gene.name} from the list`}
          onClick={onDrop}
        >
          Take off
        </Button>
      </HStack>
      {correcting && <GeneForm held={gene} onDone={() => setCorrecting(false)} />}
    </chakra.li>
  )
}

function GeneForm({ held, onDone }: { held?: Gene; onDone: () => void }) {
  const [start] = useState<Values>({
    name: held?.name ?? '',
    inheritance: held?.inheritance ?? 'recessive',
    doubleForm: held?.double_form ?? 'fine',
  })
  const form = useForm<Values>({ defaultValues: start })
  const refuse = (problem: Problem) => form.setError('name', { message: problem.detail })
  const add = useAct(
    (body: Body) => answer(api.POST('/api/genes', { body })),
    (act) => act,
    refuse,
  )
  const correction = useCorrection({
    revision: held?.revision ?? NEW,
    opened: held ? bodyOf(start) : null,
    send: (body: Body, header) =>
      answer(
        api.PUT('/api/genes/{gene}', { params: { path: { gene: held?.id ?? 0 }, header }, body }),
      ),
    actOf: (act) => act,
    onDone,
  })
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={2}
        maxWidth="45rem"
        aria-label={held ? `Trait ${held.name}` : 'New trait'}
        onSubmit={form.handleSubmit((values) =>
          held
            ? correction.save(bodyOf(values), refuse)
            : add.mutate(bodyOf(values), { onSuccess: onDone }),
        )}
      >
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr 1fr' }} columnGap={4}>
          <TextField name="name" label="Trait" required />
          <SelectField
            name="inheritance"
            label="Inheritance"
            options={['recessive', 'incomplete dominant', 'dominant']}
          />
          <SelectField
            name="doubleForm"
            label="Two copies"
            options={[
              { value: 'fine', label: 'fine' },
              { value: 'harmful', label: 'harmful' },
              { value: 'dies', label: 'the animal dies' },
            ]}
          />
        </Grid>
        <Flex gap={3}>
          <Button type="submit" disabled={add.isPending || correction.pending}>
            {held ? 'Change it' : 'Put it on the list'}
          </Button>
          <Button type="button" variant="bare" onClick={onDone}>
            Leave it
          </Button>
        </Flex>
      </chakra.form>
      <BothVersions correction={correction} labels={{ name: 'Trait', double_form: 'Two copies' }} />
    </FormProvider>
  )
}

function bodyOf({ name, inheritance, doubleForm }: Values): Body {
  return { name, inheritance, double_form: doubleForm }
}
