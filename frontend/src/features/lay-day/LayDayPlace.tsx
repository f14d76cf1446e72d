import { Box, chakra, Flex, Grid, Span, Stack } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { breeds } from '@/shared/animals/individual'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { asideQuery, layDaysQuery, useAnimals, useLayDays, useSeason } from '@/shared/api/queries'
import { dayAndTime, dayRange, fromInputMoment } from '@/shared/dates'
import { OriginFields } from '@/shared/origin/OriginFields'
import { EMPTY, type OriginValues, originOf, refusedField } from '@/shared/origin/values'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { showAct, showProblem } from '@/shared/ui/toasts'
import { useTemperatureUnit } from '@/shared/units'
import { titleOf } from './steps'

type LayDay = Schemas['LayDayResponse']

/** Lay days under way, and the beginning of a new one. */
export function Component() {
  const open = useLayDays()
  const animals = useAnimals()
  const season = useSeason()
  if (!open.data || !animals.data || !season.data) {
    return <Waiting problem={open.error?.message ?? animals.error?.message} />
  }
  return (
    <Stack gap={8} maxWidth="47.5rem">
      <Title>Lay day</Title>
      {open.data.length > 0 && (
        <section aria-labelledby="under-way">
          <Heading id="under-way">Under way</Heading>
          <chakra.ul display="flex" flexDirection="column" gap={3}>
            {open.data.map((day) => (
              <UnderWay key={day.id} day={day} />
            ))}
          </chakra.ul>
        </section>
      )}
      <section aria-labelledby="begin">
        <Heading id="begin">{open.data.length ? 'Begin another' : 'Begin'}</Heading>
        <Begin animals={animals.data} season={season.data} alone={open.data.length === 0} />
      </section>
      <PutAside />
    </Stack>
  )
}

/** Puts a lay day away, or takes it up again; either way the other is one tap. */
function useAside(day: LayDay) {
  const client = useQueryClient()
  const aside = useMutation<LayDay, Problem, boolean>({
    mutationFn: (away) =>
      answer(
        api.POST('/api/lay-day-drafts/{lay_day}/aside', {
          params: { path: { lay_day: day.id } },
          body: { aside: away },
        }),
      ),
    onSuccess: (_, away) => {
      client.invalidateQueries({ queryKey: layDaysQuery.queryKey })
      if (away) {
        const take = () => aside.mutate(false)
        showAct(`Lay day of ${day.state.dam} discarded`, take, 'Take it up again')
      }
    },
    onError: (problem) => showProblem(problem.detail),
  })
  return aside
}

/** What was set aside: nothing of it is lost. */
function PutAside() {
  const aside = useQuery(asideQuery)
  if (!aside.data?.length) return null
  return (
    <section aria-labelledby="aside">
      <Heading id="aside">Discarded</Heading>
      <ul>
        {aside.data.map((day) => (
          <Aside key={day.id} day={day} />
        ))}
      </ul>
    </section>
  )
}

function Aside({ day }: { day: LayDay }) {
  const aside = useAside(day)
  return (
    <chakra.li
      display="flex"
      flexWrap="wrap"
      alignItems="center"
      columnGap={4}
      py={2}
      borderTop="1px solid"
      borderColor="line"
    >
      <Span flex="1 1 14rem">
        <strong>{day.state.dam}</strong>, {day.count ? `${day.count}, ` : ''}laid{' '}
        {dayAndTime(day.state.laid_at)}, stopped at {titleOf(day.step, day.state).toLowerCase()}
      </Span>
      <Button type="button" size="small" onClick={() => aside.mutate(false)}>
        Take it up again
      </Button>
    </chakra.li>
  )
}

function UnderWay({ day }: { day: LayDay }) {
  const aside = useAside(day)
  return (
    <li>
      <Notice label={day.state.dam}>
        {day.count ? `${day.count}, ` : ''}laid {dayAndTime(day.state.laid_at)}, stopped at{' '}
        {titleOf(day.step, day.state).toLowerCase()}.{' '}
        {day.found_again && <span>{day.found_again}</span>}
        <Flex gap={3} mt={2} wrap="wrap">
          <Button asChild variant="act">
            <Link to={`/lay-day/${day.id}`}>Continue</Link>
          </Button>
          <Button type="button" onClick={() => aside.mutate(true)}>
            Discard
          </Button>
        </Flex>
      </Notice>
    </li>
  )
}

type Values = {
  dam: string
  sire: string
  laidAt: string
  /** Nobody saw them laid: then `origin` counts. */
  unseen: boolean
  origin: OriginValues
}

function Begin({
  animals,
  season,
  alone,
}: {
  /** Nothing else on the page is to be acted on. */
  alone: boolean
  animals: Schemas['AnimalResponse'][]
  season: Schemas['LaySeasonResponse']
}) {
  const navigate = useNavigate()
  const client = useQueryClient()
  const [asked] = useSearchParams()
  const [question, setQuestion] = useState<Problem | null>(null)
  const unit = useTemperatureUnit()
  const form = useForm<Values>({
    defaultValues: {
      dam: asked.get('dam') ?? '',
      sire: asked.get('sire') ?? '',
      laidAt: '',
      unseen: false,
      origin: EMPTY,
    },
  })
  const unseen = form.watch('unseen')
  const begin = useMutation<LayDay, Problem, Schemas['BeginRequest']>({
    mutationFn: (body) => answer(api.POST('/api/lay-day-drafts', { body })),
    onSuccess: (day) => {
      client.invalidateQueries({ queryKey: layDaysQuery.queryKey })
      navigate(`/lay-day/${day.id}`)
    },
    onError: (problem) => {
      const fields = { dam: 'dam', sire: 'sire', laid_at: 'laidAt' } as const
      if (problem.confirm) return setQuestion(problem)
      const named = problem.fields[0]?.field
      if (unseen && named !== 'dam' && named !== 'sire') {
        const field = refusedField(problem, form.getValues().origin)
        return form.setError(`origin.${field}`, { message: problem.detail })
      }
      const at = problem.fields[0]?.field as keyof typeof fields | undefined
      form.setError(at && at in fields ? fields[at] : 'dam', { message: problem.detail })
    },
  })
  const send = (values: Values, second_clutch = false) =>
    begin.mutate({
      dam: values.dam,
      sire: values.sire.trim() || null,
      laid_at: values.laidAt && !unseen ? fromInputMoment(values.laidAt) : null,
      second_clutch,
      origin: unseen ? originOf(values.origin, unit) : null,
    })
  const expected = season.dams.filter((dam) => dam.forecast)
  const named = (role: string) =>
    animals.filter((a) => a.role === role && breeds(a)).map((a) => a.name)
  return (
    <FormProvider {...form}>
      <chakra.form noValidate onSubmit={form.handleSubmit((values) => send(values))}>
        {expected.length > 0 && (
          <Flex wrap="wrap" gap={2} mb={4}>
            {expected.map((dam) => (
              <Button
                key={dam.dam}
                type="button"
                aria-pressed={form.watch('dam') === dam.name}
                onClick={() => {
                  setQuestion(null)
                  form.setValue('dam', dam.name)
                  form.setValue('sire', dam.pairings.at(-1)?.sire ?? '')
                  form.clearErrors()
                }}
              >
                <strong>{dam.name}</strong>
                <Span color="soft">
                  {dam.forecast?.window
                    ? `expected ${dayRange(dam.forecast.window.p10, dam.forecast.window.p90)}`
                    : 'overdue'}
                </Span>
              </Button>
            ))}
          </Flex>
        )}
        <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap={4}>
          <TextField
            name="dam"
            label="Dam"
            required
            offers={named('dam')}
            onTyped={() => setQuestion(null)}
          />
          <TextField name="sire" label="Sire, if known" offers={named('sire')} />
        </Grid>
        {unseen ? (
          <OriginFields counts={() => form.getValues('unseen')} />
        ) : (
          <TextField
            name="laidAt"
            label="Laid, if not just now"
            type="datetime-local"
            help="Left empty, it counts as now. The day after laying, eggs are no longer turned."
          />
        )}
        <Box mb={4} mt={-2}>
          <Button
            type="button"
            variant="bare"
            size="small"
            onClick={() => form.setValue('unseen', !unseen)}
          >
            {unseen ? 'Somebody saw them laid' : 'Nobody saw when, or they come from elsewhere'}
          </Button>
        </Box>
        {question ? (
          <Box role="alert" mb={4}>
            <Notice label="One question">
              {question.detail}
              <Flex gap={3} mt={2} wrap="wrap">
                <Button
                  type="button"
                  variant="act"
                  onClick={form.handleSubmit((values) => send(values, true))}
                >
                  Yes, a second clutch
                </Button>
                <Button asChild>
                  <Link to="/">No, to Today</Link>
                </Button>
              </Flex>
            </Notice>
          </Box>
        ) : (
          <Button
            type="submit"
            variant={alone ? 'act' : 'plain'}
            disabled={begin.isPending}
            width={{ base: '100%', md: 'auto' }}
          >
            Begin lay day
          </Button>
        )}
      </chakra.form>
    </FormProvider>
  )
}
