import { Box, Field, Flex, HStack, Input } from '@chakra-ui/react'
import { useQueries } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { clutchesOf } from '@/shared/api/clutchesOf'
import { clutchQuery, useRules, useToday } from '@/shared/api/queries'
import { BoxLabel } from '@/shared/card/ClutchCard'
import { zone } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Title, Waiting } from '@/shared/ui/page'
import { Tick } from '@/shared/ui/Tick'
import { useTemperatureUnit } from '@/shared/units'

/** Small labels of one clutch or many, from the first free place of a used sheet. */
export function Component() {
  const today = useToday()
  const [asked, setAsked] = useSearchParams()
  const chosen = asked.get('clutches')?.split(',').filter(Boolean) ?? []
  const rules = useRules()
  const unit = useTemperatureUnit()
  const perSheet = rules.data?.labels_per_sheet ?? 1
  const used = Math.max(0, Math.min(perSheet - 1, Number(asked.get('used') ?? 0) || 0))
  const inZone = `clutches=${chosen.join(',')}&zone=${encodeURIComponent(zone())}`
  const clutches = useQueries({
    queries: chosen.map(clutchQuery),
  })
  if (!today.data || !rules.data) {
    return <Waiting problem={today.error?.message ?? rules.error?.message} />
  }
  const change = (changed: { clutches?: string[]; used?: string }) =>
    setAsked(
      {
        clutches: (changed.clutches ?? chosen).join(','),
        used: changed.used ?? String(used),
      },
      { replace: true },
    )
  return (
    <div>
      <Box _print={{ display: 'none' }} mb={6}>
        <HStack gap={3} wrap="wrap" mb={4}>
          <Title>Labels</Title>
          <Button
            type="button"
            variant="act"
            disabled={chosen.length === 0}
            onClick={() => window.print()}
          >
            Print on A4
          </Button>
          {chosen.length > 0 && (
            <>
              <Button asChild>
                <a href={`/api/labels.pdf?${inZone}&used=${used}`}>Labels as PDF</a>
              </Button>
              <Button asChild>
                <a href={`/api/cards.pdf?${inZone}&unit=${unit}`}>Cards as PDF</a>
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
            {perSheet} to a sheet, 70 by 37 mm; print without margins.
          </Field.HelperText>
        </Field.Root>
      </Box>
      <div className="label-sheet">
        {Array.from({ length: used }, (_, i) => (
          <div key={`used-${i}`} className="empty" />
        ))}
        {clutches.map((clutch) =>
          clutch.data ? <BoxLabel key={clutch.data.code} clutch={clutch.data} /> : null,
        )}
      </div>
    </div>
  )
}
