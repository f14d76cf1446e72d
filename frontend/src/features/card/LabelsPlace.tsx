import { Box, Field, Flex, HStack, Input, NativeSelect } from '@chakra-ui/react'
import { keepPreviousData, queryOptions, skipToken, useQuery } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { answer, api } from '@/shared/api/client'
import { clutchesOf } from '@/shared/api/clutchesOf'
import { useRules, useToday } from '@/shared/api/queries'
import { under } from '@/shared/api/under'
import { BoxLabel } from '@/shared/card/ClutchCard'
import { zone } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Title, Waiting } from '@/shared/ui/page'
import { Tick } from '@/shared/ui/Tick'
import { useTemperatureUnit } from '@/shared/units'

const PAPERS: [string, string][] = [
  ['A6', 'A6, a card each'],
  ['A4', 'A4, four to cut'],
  ['Letter', 'US Letter, four to cut'],
]

function Choice(props: {
  label: string
  value: string
  options: [string, string][]
  onChoose: (value: string) => void
}) {
  return (
    <Field.Root maxWidth="16rem">
      <Field.Label>{props.label}</Field.Label>
      <NativeSelect.Root>
        <NativeSelect.Field
          value={props.value}
          onChange={(event) => props.onChoose(event.target.value)}
        >
          {props.options.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
    </Field.Root>
  )
}

const labelsQuery = (clutches: string) =>
  queryOptions({
    queryKey: ['labels', clutches],
    queryFn: clutches
      ? () => answer(api.GET('/api/labels', { params: { query: { clutches } } }))
      : skipToken,
    // One more ticked: the others stay where they are meanwhile.
    placeholderData: clutches ? keepPreviousData : [],
  })

/** Small labels of one clutch or many, from the first free place of a used sheet. */
export function Component() {
  const today = useToday()
  const [asked, setAsked] = useSearchParams()
  const chosen = asked.get('clutches')?.split(',').filter(Boolean) ?? []
  const rules = useRules()
  const unit = useTemperatureUnit()
  const sheets = Object.entries(rules.data?.labels_per_sheet ?? {})
  const sheet = asked.get('sheet') ?? sheets[0]?.[0] ?? ''
  const paper = asked.get('paper') ?? 'A6'
  const perSheet = sheets.find(([name]) => name === sheet)?.[1] ?? 1
  const used = Math.max(0, Math.min(perSheet - 1, Number(asked.get('used') ?? 0) || 0))
  const inZone = `clutches=${chosen.join(',')}&zone=${encodeURIComponent(zone())}`
  const labels = useQuery(labelsQuery(chosen.join(',')))
  if (!today.data || !rules.data) {
    return <Waiting problem={today.error?.message ?? rules.error?.message} />
  }
  const change = (changed: {
    clutches?: string[]
    used?: string
    sheet?: string
    paper?: string
  }) =>
    setAsked(
      {
        used: String(used),
        sheet,
        paper,
        ...changed,
        clutches: (changed.clutches ?? chosen).join(','),
      },
      { replace: true },
    )
  const words = (name: string) => name.replaceAll(' x ', ' × ')
  return (
    <div>
      <Box _print={{ display: 'none' }} mb={6}>
        <HStack gap={3} wrap="wrap" mb={4}>
          <Title>Labels</Title>
          {sheet === sheets[0]?.[0] && (
            <Button
              type="button"
              variant="act"
              disabled={chosen.length === 0}
              onClick={() => window.print()}
            >
              Print on A4
            </Button>
          )}
          {chosen.length > 0 && (
            <>
              <Button asChild>
                <a
                  href={under(
                    `/api/labels.pdf?${inZone}&used=${used}&sheet=${encodeURIComponent(sheet)}`,
                  )}
                >
                  Labels as PDF
                </a>
              </Button>
              <Button asChild>
                <a href={under(`/api/cards.pdf?${inZone}&unit=${unit}&paper=${paper}`)}>
                  Cards as PDF
                </a>
              </Button>
            </>
          )}
        </HStack>
        <Flex wrap="wrap" columnGap={6}>
          {clutchesOf(today.data).map(({ code }) => (
            <Tick
              key={code}
              label={code}
              checked={chosen.includes(code)}
              onChange={(on) =>
                change({ clutches: on ? [...chosen, code] : chosen.filter((c) => c !== code) })
              }
            />
          ))}
        </Flex>
        <Flex wrap="wrap" columnGap={6} mt={3}>
          <Choice
            label="Sheet of labels, mm"
            value={sheet}
            options={sheets.map(([name]) => [name, words(name)])}
            onChoose={(chosenSheet) => change({ sheet: chosenSheet, used: '0' })}
          />
          <Choice
            label="Paper of cards"
            value={paper}
            options={PAPERS}
            onChoose={(chosenPaper) => change({ paper: chosenPaper })}
          />
        </Flex>
        <Field.Root mt={3}>
          <Field.Label>Labels used up on this sheet, 0 to {perSheet - 1}</Field.Label>
          <Input
            type="number"
            min={0}
            max={perSheet - 1}
            maxWidth="6.875rem"
            value={used}
            onChange={(event) => change({ used: event.target.value })}
          />
          <Field.HelperText>
            {perSheet} to a sheet. Print without margins, in its actual size.
          </Field.HelperText>
        </Field.Root>
      </Box>
      <div className="label-sheet">
        {Array.from({ length: used }, (_, i) => (
          <div key={`used-${i}`} className="empty" />
        ))}
        {labels.data?.map((label) => (
          <BoxLabel key={label.code} label={label} />
        ))}
      </div>
    </div>
  )
}
