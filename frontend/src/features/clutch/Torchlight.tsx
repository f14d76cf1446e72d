import { Box, Span, Text } from '@chakra-ui/react'
import { EggDrawing } from '@/eggs/EggDrawing'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { day, dayRange } from '@/shared/dates'
import { takeMoment } from '@/shared/moment/moment'
import { Choices } from '@/shared/ui/Choices'

type Egg = Schemas['EggResponse']
type Vessels = Schemas['Vessels']

const CHOICES: { value: Vessels; label: string; drawn: 'strong' | 'weak' | 'broken' | 'none' }[] = [
  { value: 'strong', label: 'strong', drawn: 'strong' },
  { value: 'weak', label: 'weak', drawn: 'weak' },
  { value: 'unsure', label: 'not sure', drawn: 'weak' },
  { value: 'none', label: 'none', drawn: 'none' },
  { value: 'broken', label: 'broken, ring', drawn: 'broken' },
]

/** What the torch showed of the chosen egg, and the next look with it. */
export function Torchlight({ code, egg }: { code: string; egg: Egg }) {
  const candle = useAct(
    (vessels: Vessels) =>
      answer(
        api.POST('/api/clutches/{code}/eggs/{number}/candlings', {
          params: { path: { code, number: egg.number } },
          body: { vessels, at: takeMoment() },
        }),
      ),
    (act) => act,
  )
  const { torchlight } = egg
  if (egg.slug) return null
  return (
    <Box mt={4}>
      <Choices
        legend={`Egg ${egg.number} by torchlight now`}
        columns={5}
        choices={CHOICES.map(({ value, label, drawn }) => ({
          value,
          label: <Span fontSize="fine">{label}</Span>,
          drawing: (
            <EggDrawing
              egg={{
                number: egg.number,
                grade: 0,
                candled: { vessels: drawn, disc: torchlight.disc ?? 'top' },
              }}
              size={52}
              decorative
            />
          ),
        }))}
        value={null}
        onChoose={(vessels) => candle.mutate(vessels)}
      />
      <Text color="soft" mt={2} fontSize="small">
        {lastLook(egg)}
        {torchlight.again_from &&
          torchlight.again_by &&
          ` Candle again ${dayRange(torchlight.again_from, torchlight.again_by)}.`}
      </Text>
    </Box>
  )
}

/** "Last candled 14 Jun: weak vessels, disc underneath; turned. 82 g." */
function lastLook({ torchlight, events, mass_g }: Egg): string {
  const parts: string[] = []
  if (torchlight.vessels && torchlight.seen_at) {
    const vessels =
      { none: 'no vessels', unsure: 'not sure' }[torchlight.vessels as string] ??
      `${torchlight.vessels} vessels`
    const disc = torchlight.disc && torchlight.disc !== 'top' ? `, disc ${torchlight.disc}` : ''
    parts.push(`Last candled ${day(torchlight.seen_at)}: ${vessels}${disc}.`)
  } else {
    parts.push('Not candled yet.')
  }
  if (events.length) parts.push(`On lay day: ${events.join(', ')}.`)
  if (mass_g !== null) parts.push(`${mass_g} g.`)
  return parts.join(' ')
}
