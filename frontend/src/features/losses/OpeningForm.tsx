import { Box, chakra, Flex, Span, Stack, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { OpenedEgg } from '@/eggs/OpenedEgg'
import { answer, api, type Schemas } from '@/shared/api/client'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { NEW, useCorrection } from '@/shared/corrections/useCorrection'
import { Button } from '@/shared/ui/Button'
import { Chips } from '@/shared/ui/Chips'
import { withFinding } from './findings'
import { useFindingChoices } from './queries'

type Kind = Schemas['FindingChoices']
type Findings = Record<string, string[]>

const TITLES: Record<string, string> = {
  outside: 'Outside',
  shell: 'Shell',
  position: 'Where it lay',
  stage: 'How far grown',
  yolk: 'Yolk',
  vessels: 'Vessels',
  fluid: 'Fluid',
  cord: 'Cord',
  form: 'Form',
  inside: 'Mould inside',
  smell: 'Smell',
  larvae: 'Larvae',
}

/** What is seen in a failed egg, chosen from drawings; "not opened" is an answer too. */
export function OpeningForm({
  code,
  number,
  held,
  onDone,
}: {
  code: string
  number: number
  held: Schemas['OpeningResponse'] | null
  onDone: () => void
}) {
  const choices = useFindingChoices().data ?? []
  const [found, setFound] = useState<Findings>((held?.findings as Findings | undefined) ?? {})
  const [note, setNote] = useState(held?.note ?? '')
  const [problem, setProblem] = useState<string | null>(null)
  /** Every kind has its place, so that two versions can be held against each other. */
  const whole = (findings: Findings) =>
    Object.fromEntries(choices.map(({ kind }) => [kind, findings[kind] ?? []]))
  const correction = useCorrection({
    revision: held?.revision ?? NEW,
    opened: held ? { opened: held.opened, findings: whole(held.findings), note: held.note } : null,
    send: (body: Schemas['OpeningRequest'], header) =>
      answer(
        api.PUT('/api/clutches/{code}/eggs/{number}/opening', {
          params: { path: { code, number }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone,
  })
  const send = (opened: boolean) =>
    correction.save({ opened, findings: whole(opened ? found : {}), note }, (refused) =>
      setProblem(refused.detail),
    )
  return (
    <Box bg="sheet" borderRadius="small" p={{ base: 3, md: 5 }} mb={6}>
      <Stack gap={4}>
        {choices.map((kind) => (
          <OneKind
            key={kind.kind}
            kind={kind}
            found={found}
            onToggle={(value) => {
              setProblem(null)
              setFound(withFinding(found, kind, value))
            }}
          />
        ))}
        <chakra.label>
          In your own words
          <chakra.textarea
            value={note}
            maxLength={400}
            onChange={(event) => setNote(event.target.value)}
            display="block"
            width="100%"
            minHeight="4.5rem"
            p={3}
            mt={1}
            bg="paper"
            border="1.5px solid"
            borderColor="soft"
            borderRadius="small"
          />
        </chakra.label>
        {problem && (
          <Text role="alert" color="vessel" fontWeight="semibold">
            {problem}
          </Text>
        )}
        <Flex gap={3} wrap="wrap">
          <Button
            type="button"
            variant="act"
            disabled={correction.pending}
            onClick={() => send(true)}
          >
            Record what was found
          </Button>
          <Button type="button" disabled={correction.pending} onClick={() => send(false)}>
            Not opened
          </Button>
        </Flex>
      </Stack>
      <BothVersions
        correction={correction}
        labels={Object.fromEntries(
          choices.map(({ kind }) => [`findings.${kind}`, TITLES[kind] ?? kind]),
        )}
      />
    </Box>
  )
}

/** The choices of one kind, each drawn as it would look in the egg as it is said to be so far. */
function OneKind({
  kind,
  found,
  onToggle,
}: {
  kind: Kind
  found: Findings
  onToggle: (value: string) => void
}) {
  return (
    <Chips
      legend={
        <>
          {TITLES[kind.kind]}
          {kind.several && <Span color="soft"> (several can be)</Span>}
        </>
      }
      chips={Object.entries(kind.values).map(([value, label]) => ({
        value,
        label,
        drawing: <OpenedEgg found={{ ...stageFor(kind.kind), [kind.kind]: [value] }} size={64} />,
      }))}
      on={found[kind.kind] ?? []}
      onToggle={onToggle}
      drawn
    />
  )
}

/** An animal to show a choice on, nearly grown: large enough to be seen so small. */
function stageFor(kind: string): Findings {
  return ['position', 'cord', 'form', 'fluid'].includes(kind) ? { stage: ['full term'] } : {}
}
