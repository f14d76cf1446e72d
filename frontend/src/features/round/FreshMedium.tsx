import { Box, Grid } from '@chakra-ui/react'
import { useMethods } from '@/shared/api/queries'
import { Tick } from '@/shared/ui/Tick'
import { Grams, Select } from './boxFields'
import { type ChangeDraft, type Draft, wrongWith } from './draft'
import { type RoundBox, useLimits } from './queries'

type Props = {
  box: RoundBox
  draft: Draft
  onChange: ChangeDraft
}

/** Medium swapped: from here on the water of the box is counted anew. */
export function FreshMedium({ box, draft, onChange }: Props) {
  const { fresh } = draft
  const media = useMethods().data?.media
  const names = media?.map((medium) => medium.name) ?? [box.box_water.medium]
  const wrong = wrongWith(draft, useLimits(box))
  const change = (changed: Partial<NonNullable<Draft['fresh']>>) =>
    onChange((held) => (held.fresh ? { ...held, fresh: { ...held.fresh, ...changed } } : held))
  return (
    <div>
      <Tick
        label="Medium swapped for fresh"
        checked={fresh !== null}
        onChange={(checked) =>
          onChange((held) => ({
            ...held,
            fresh: checked ? { medium: box.box_water.medium, water: '', mass: '' } : null,
          }))
        }
      />
      {fresh && (
        <Grid templateColumns={{ base: '1fr 1fr', md: '2fr 1fr 1fr' }} gap={3}>
          <Box gridColumn={{ base: 'span 2', md: 'auto' }}>
            <Select
              label="Fresh medium"
              value={fresh.medium}
              options={names.map((name) => ({ value: name, label: name }))}
              onChange={(medium) => change({ medium })}
            />
          </Box>
          <Grams
            label="Water in it, g"
            value={fresh.water}
            error={wrong?.field === 'fresh' ? wrong.words : undefined}
            help="empty: not measured"
            onChange={(water) => change({ water })}
          />
          <Grams
            label="Whole box now, g"
            value={fresh.mass}
            error={undefined}
            help="its new set-up weight"
            onChange={(mass) => change({ mass })}
          />
        </Grid>
      )}
    </div>
  )
}
