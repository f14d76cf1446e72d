import { Box, Grid, Text } from '@chakra-ui/react'
import { useFormContext } from 'react-hook-form'
import { Choices } from '@/shared/ui/Choices'
import { TextField } from '@/shared/ui/fields'
import { typedTemperature, useTemperatureUnit } from '@/shared/units'
import type { KnownBy, OriginKind, OriginValues, TorchStage } from './values'

const KINDS: { value: OriginKind; label: string }[] = [
  { value: 'found', label: 'Found in her tub' },
  { value: 'taken from the dam', label: 'Taken from the dam' },
  { value: 'from elsewhere', label: 'From elsewhere' },
]

const KNOWN_BY: { value: KnownBy; label: string }[] = [
  { value: 'between', label: 'Between two times' },
  { value: 'torch', label: 'By torch' },
  { value: 'time', label: 'A known time' },
]

const STAGES: { value: TorchStage; label: string }[] = [
  { value: 'disc only', label: 'Disc only' },
  { value: 'vessels a quarter round', label: 'Vessels a quarter round' },
  { value: 'vessels half round', label: 'Half round' },
  { value: 'vessels all round', label: 'All round' },
  { value: 'dark body', label: 'Dark body' },
]

/**
 * Where eggs come from that nobody saw laid, under `origin` in the form around it. `counts` says
 * whether they are still asked for where they can be put away again.
 */
export function OriginFields({ counts = () => true }: { counts?: () => boolean }) {
  const form = useFormContext<{ origin: OriginValues }>()
  const unit = useTemperatureUnit()
  const { kind, by, stage } = form.watch('origin')
  const knownBy = (way: KnownBy) => () => counts() && form.getValues('origin.by') === way
  const came = () => counts() && form.getValues('origin.kind') !== 'found'
  return (
    <Box display="flex" flexDirection="column" gap={4} mb={4}>
      <Choices<OriginKind>
        legend="These eggs were"
        columns={{ base: 1, md: 3 }}
        choices={KINDS}
        value={kind}
        onChoose={(value) => form.setValue('origin.kind', value)}
      />
      <Choices<KnownBy>
        legend="When they were laid is known"
        columns={{ base: 1, md: 3 }}
        choices={KNOWN_BY}
        value={by}
        onChoose={(value) => form.setValue('origin.by', value)}
      />
      {by === 'time' && (
        <TextField
          name="origin.laidAt"
          label="Laid"
          type="datetime-local"
          required
          asked={knownBy('time')}
        />
      )}
      {by === 'between' && (
        <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap={4}>
          <TextField
            name="origin.laidFrom"
            asked={knownBy('between')}
            label="Laid after"
            type="datetime-local"
            required
            help="When there were none yet."
          />
          <TextField
            name="origin.laidUntil"
            asked={knownBy('between')}
            label="Laid before"
            type="datetime-local"
            required
            help="When they were there."
          />
        </Grid>
      )}
      {by === 'torch' && (
        <div>
          <Choices<TorchStage>
            legend="What most of them show by torch"
            columns={{ base: 2, md: 5 }}
            choices={STAGES}
            value={stage}
            onChoose={(value) => form.setValue('origin.stage', value)}
          />
          <Text color="soft" my={3}>
            A wide guess, ours: your own closed clutches narrow it.
          </Text>
          <TextField
            name="origin.stageSeenAt"
            label="Candled"
            type="datetime-local"
            required
            asked={knownBy('torch')}
          />
        </div>
      )}
      {kind !== 'found' && (
        <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap={4}>
          <TextField
            name="origin.arrivedAt"
            asked={came}
            label={kind === 'from elsewhere' ? 'Came here' : 'Taken from her'}
            type="datetime-local"
            required
            help="From then on what is measured here counts."
          />
          <TextField
            name="origin.before"
            asked={came}
            label={`Before that at about, °${unit}`}
            inputMode="decimal"
            help="Leave it empty where nobody knows."
            check={(text) =>
              !text.trim() ||
              !Number.isNaN(typedTemperature(text, unit)) ||
              'A temperature, like 31.5 or 88.7F.'
            }
          />
        </Grid>
      )}
    </Box>
  )
}
