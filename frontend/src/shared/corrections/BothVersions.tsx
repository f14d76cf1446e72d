import { Dialog, Flex, Grid, Portal, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '@/shared/ui/Button'
import { Choices } from '@/shared/ui/Choices'
import { useTemperatureUnit } from '@/shared/units'
import type { Clash, Correction } from './useCorrection'
import { differences, inWords, labelOf, merged, type Whose } from './versions'

type Words = {
  /** What fields are called in the form, by their path, where it is not the path itself. */
  labels?: Record<string, string>
  /** A value in words where the form knows better, like the name of an animal by its id. */
  say?: (path: string, value: unknown) => string | undefined
}

/** What was typed here and what somebody recorded meanwhile, side by side, to choose from. */
export function BothVersions<Body extends object>({
  correction,
  ...words
}: { correction: Correction<Body> } & Words) {
  return (
    <Dialog.Root
      open={correction.clash !== null}
      onOpenChange={(change) => !change.open && correction.close()}
      lazyMount
      unmountOnExit
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content display="flex" flexDirection="column" maxWidth="38.75rem">
            <Dialog.Title>Somebody changed this meanwhile</Dialog.Title>
            {correction.clash && (
              <Choosing clash={correction.clash} correction={correction} {...words} />
            )}
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  )
}

function Choosing<Body extends object>({
  clash,
  correction,
  labels = {},
  say = () => undefined,
}: { clash: Clash<Body>; correction: Correction<Body> } & Words) {
  const unit = useTemperatureUnit()
  const rows = differences(clash.opened, clash.mine as Record<string, unknown>, clash.theirs)
  const [chosen, setChosen] = useState<Record<string, Whose>>(() =>
    Object.fromEntries(rows.map((row) => [row.path, row.suggested])),
  )
  const words = (path: string, value: unknown) => say(path, value) ?? inWords(path, value, unit)
  const anyMine = rows.some((row) => chosen[row.path] === 'mine')
  return (
    <>
      <Text color="soft" mb={4}>
        {rows.length
          ? 'Nothing is recorded yet, and what you typed is still here. Choose what shall hold.'
          : 'It says the same as what you typed.'}
      </Text>
      <Grid overflowY="auto" minHeight={0} mb={4} mx={-2} p={2} gap={5}>
        {rows.map((row) => (
          <Choices<Whose>
            key={row.path}
            legend={labels[row.path] ?? labelOf(row.path)}
            columns={2}
            choices={[
              {
                value: 'mine',
                label: words(row.path, row.mine),
                note: row.suggested === 'mine' ? 'typed here' : 'not changed here',
              },
              { value: 'theirs', label: words(row.path, row.theirs), note: 'recorded meanwhile' },
            ]}
            value={chosen[row.path] ?? row.suggested}
            onChoose={(whose) => setChosen({ ...chosen, [row.path]: whose })}
          />
        ))}
      </Grid>
      <Flex gap={3} wrap="wrap" flexShrink={0}>
        {anyMine ? (
          <Button
            type="button"
            variant="act"
            disabled={correction.pending}
            onClick={() => correction.choose(merged(clash.mine, clash.theirs, chosen))}
          >
            Record what is chosen
          </Button>
        ) : (
          <Button type="button" variant="act" onClick={correction.leave}>
            Leave it as recorded
          </Button>
        )}
        <Button type="button" onClick={correction.close}>
          Back to the form
        </Button>
      </Flex>
    </>
  )
}
