import { Box, chakra, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { breeds } from '@/shared/animals/individual'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { day } from '@/shared/dates'
import { takeMoment } from '@/shared/moment/moment'
import { When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { SelectField } from '@/shared/ui/fields'

type Planned = Schemas['PlannedResponse']

/** Which sire visits whom next; begun, parted and locks seen with one tap. */
export function NextVisits({
  season,
  animals,
}: {
  season: Schemas['LaySeasonResponse']
  animals: Schemas['AnimalResponse'][]
}) {
  return (
    <Stack gap={4}>
      <When />
      {season.plan.length === 0 ? (
        <Text color="soft">Nobody is planned for anybody.</Text>
      ) : (
        <ul>
          {season.plan.map((visit) => (
            <Visit key={`${visit.dam}-${visit.sire}`} visit={visit} />
          ))}
        </ul>
      )}
      <PlanPair animals={animals} />
    </Stack>
  )
}

function Visit({ visit }: { visit: Planned }) {
  const pair = { dam: visit.dam, sire: visit.sire }
  const begin = useAct(
    () => answer(api.POST('/api/breeding/pairings', { body: { ...pair, start: takeMoment() } })),
    (act) => act,
  )
  const path = { pairing: visit.pairing ?? 0 }
  const lock = useAct(
    () =>
      answer(
        api.POST('/api/breeding/pairings/{pairing}/locks', {
          params: { path },
          body: { seen_at: takeMoment() },
        }),
      ),
    (act) => act,
  )
  const end = useAct(
    () =>
      answer(
        api.POST('/api/breeding/pairings/{pairing}/end', {
          params: { path },
          body: { until: takeMoment() },
        }),
      ),
    (act) => act,
  )
  const drop = useAct(
    () => answer(api.DELETE('/api/breeding/pairs/{dam}/{sire}', { params: { path: pair } })),
    (act) => act,
  )
  return (
    <chakra.li
      display="flex"
      flexWrap="wrap"
      alignItems="center"
      columnGap={4}
      rowGap={2}
      py={3}
      borderTop="1px solid"
      borderColor="line"
    >
      <Span flex="1" minWidth="min(14.375rem, 100%)">
        <Strong fontSize="lead">
          {visit.sire_name} to {visit.dam_name}
        </Strong>
        <Span color={visit.due && !visit.together ? 'ink' : 'soft'} ms={3}>
          {visit.together
            ? `together since ${day(visit.start)}`
            : visit.due
              ? 'due now'
              : `from ${day(visit.start)}`}
        </Span>
        {visit.warnings.map((warning) => (
          <Span key={warning} display="block" color="vessel" fontSize="small">
            {warning}
          </Span>
        ))}
      </Span>
      {visit.together ? (
        <>
          <Button size="small" onClick={() => lock.mutate()}>
            Lock seen
          </Button>
          <Button size="small" onClick={() => end.mutate()}>
            Parted
          </Button>
        </>
      ) : (
        <>
          <Button size="small" onClick={() => begin.mutate()}>
            Together now
          </Button>
          <Button variant="bare" size="small" onClick={() => drop.mutate()}>
            Not this season
          </Button>
        </>
      )}
    </chakra.li>
  )
}

function PlanPair({ animals }: { animals: Schemas['AnimalResponse'][] }) {
  const form = useForm({ defaultValues: { dam: '', sire: '' } })
  const plan = useAct(
    (pair: Schemas['PairRequest']) => answer(api.POST('/api/breeding/pairs', { body: pair })),
    (act) => act,
    (problem) => form.setError('dam', { message: problem.detail }),
  )
  const options = (role: string) => [
    { value: '', label: 'choose' },
    ...animals
      .filter((a) => a.role === role && breeds(a))
      .map((a) => ({ value: String(a.id), label: a.name })),
  ]
  if (options('dam').length === 1 || options('sire').length === 1) return null
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        display="grid"
        gridTemplateColumns={{ base: '1fr 1fr', md: '12.5rem 12.5rem auto' }}
        columnGap={4}
        alignItems="end"
        onSubmit={form.handleSubmit(({ dam, sire }) =>
          plan.mutate({ dam: Number(dam), sire: Number(sire) }, { onSuccess: () => form.reset() }),
        )}
      >
        <SelectField name="dam" label="Dam" options={options('dam')} required />
        <SelectField name="sire" label="Sire" options={options('sire')} required />
        <Box mb={4}>
          <Button type="submit">Plan the pair</Button>
        </Box>
      </chakra.form>
    </FormProvider>
  )
}
