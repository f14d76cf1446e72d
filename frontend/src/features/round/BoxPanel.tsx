import { chakra, Grid, Span, Stack, Strong, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { Chips } from '@/shared/ui/Chips'
import { Choices } from '@/shared/ui/Choices'
import { temperature, useTemperatureUnit } from '@/shared/units'
import { Grams, Select } from './boxFields'
import { BOX_SIGNS } from './boxSigns'
import { type Draft, grams, toggled, topUpFor, wrongWith } from './draft'
import { FreshMedium } from './FreshMedium'
import { type RoundBox, useLimits } from './queries'
import { BOX_ACTS } from './signs'

type Props = {
  box: RoundBox
  draft: Draft
  onChange: (draft: Draft) => void
}

/** The box itself: what it weighs and what to add, lid and medium, what is done at it. */
export function BoxPanel({
  box,
  shelves,
  draft,
  onChange,
}: Props & { shelves: Schemas['ShelfChoice'][] }) {
  const here = `${box.cabinet}/${box.shelf}`
  const rules = useRules().data
  const wrong = wrongWith(draft, useLimits(box))
  return (
    <chakra.section aria-label="Box" display="flex" flexDirection="column" gap={5}>
      <Water box={box} draft={draft} onChange={onChange} />
      {BOX_SIGNS.map((group) => (
        <Choices
          key={group.kind}
          legend={group.legend}
          columns={group.choices.length}
          choices={group.choices.map((choice) => ({
            ...choice,
            label: <Span fontSize="small">{choice.label}</Span>,
          }))}
          value={draft.signs[group.kind] ?? null}
          onChoose={(value) =>
            onChange({ ...draft, signs: { ...draft.signs, [group.kind]: value } })
          }
        />
      ))}
      {draft.signs.smell === 'foul' && (
        <p>
          A bad smell means a dead egg somewhere: go box by box, and keep what might live. Wash your
          hands before the next box.
        </p>
      )}
      <Chips
        legend="Done at the box"
        chips={BOX_ACTS.filter((act) => act.value !== 'grid removed' || box.on_grid)}
        on={draft.acts}
        onToggle={(act) => onChange({ ...draft, acts: toggled(draft.acts, act) })}
      />
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap={4}>
        <Select
          label="Closed with"
          value={draft.closing ?? box.box_water.closing}
          options={(rules?.closings ?? [box.box_water.closing]).map((closing) => ({
            value: closing,
            label: closing,
          }))}
          onChange={(closing) =>
            onChange({
              ...draft,
              closing: closing === box.box_water.closing ? null : (closing as Draft['closing']),
            })
          }
        />
        <Select
          label="Put back on"
          value={draft.shelf ? `${draft.shelf.cabinet}/${draft.shelf.shelf}` : here}
          options={shelves.map(({ cabinet, shelf }) => ({
            value: `${cabinet}/${shelf}`,
            label: `${cabinet}, ${shelf}`,
          }))}
          onChange={(place) => {
            const [cabinet = '', shelf = ''] = place.split('/')
            onChange({ ...draft, shelf: place === here ? null : { cabinet, shelf } })
          }}
        />
      </Grid>
      {(draft.acts.includes('grid removed') || draft.acts.includes('film replaced')) && (
        <Grams
          label="That changed the box's weight by, g"
          value={draft.change}
          error={wrong?.field === 'change' ? wrong.words : undefined}
          signed
          help="less than 0 for what was taken out; empty for nothing to speak of"
          onChange={(text) => onChange({ ...draft, change: text })}
        />
      )}
      <FreshMedium box={box} draft={draft} onChange={onChange} />
    </chakra.section>
  )
}

function Water({ box, draft, onChange }: Props) {
  const unit = useTemperatureUnit()
  const { left, reference_g, last_weighed_g } = box.box_water
  const mass = grams(draft.mass)
  const wrong = wrongWith(draft, useLimits(box))
  const step = topUpFor(box.top_ups, wrong?.field === 'mass' ? null : mass)
  // By the scale where it was weighed just now, else by the estimate.
  const add = step ?? (mass === null && box.box_water.add ? box.box_water.add : undefined)
  const pour = add?.today_g
  const at = temperature(box.box_c, unit)
  return (
    <Stack gap={3}>
      {left && (
        <Text fontSize="lead">
          Water left: <Strong>{Math.round(left.share * 100)} %</Strong>
          <Span color="soft">
            {' '}
            ({Math.round(left.share_low * 100)} to {Math.round(left.share_high * 100)} %,{' '}
            {left.weighings > 1 ? `by ${left.weighings} weighings` : 'estimated; weighing tells'})
          </Span>
        </Text>
      )}
      <Grid templateColumns="1fr 1fr" gap={4}>
        <Grams
          label="Box weighs, g"
          value={draft.mass}
          error={wrong?.field === 'mass' ? wrong.words : undefined}
          help={
            last_weighed_g !== null
              ? `last ${last_weighed_g} g`
              : reference_g !== null
                ? `set up ${reference_g} g`
                : 'not weighed before'
          }
          onChange={(text) => onChange({ ...draft, mass: text })}
        />
        <Grams
          label="Water added, g"
          value={draft.water}
          error={wrong?.field === 'water' ? wrong.words : undefined}
          help="1 g is 1 ml"
          onChange={(text) => onChange({ ...draft, water: text })}
        />
      </Grid>
      {pour !== undefined && pour > 0 && (
        <chakra.button
          type="button"
          aria-pressed={draft.water === String(pour)}
          onClick={() =>
            onChange({ ...draft, water: draft.water === String(pour) ? '' : String(pour) })
          }
          minHeight="3.5rem"
          px={4}
          textAlign="start"
          border="2.5px solid"
          borderColor={draft.water === String(pour) ? 'ink' : 'yolkInk'}
          borderRadius="small"
          bg={draft.water === String(pour) ? 'sheet' : 'transparent'}
          cursor="pointer"
          _hover={{ bg: 'faint' }}
        >
          {draft.water === String(pour) ? 'Added' : 'Add'}{' '}
          <Strong fontSize="large">{pour} ml</Strong> at {at}, along the side, never on eggs
          {add?.split && '; the rest tomorrow'}
          {!step && (
            <Span color="soft">
              {' '}
              ({left && left.weighings > 1 ? 'by its last weighing' : 'by estimate'})
            </Span>
          )}
        </chakra.button>
      )}
      {step && step.add_g === 0 && <Text color="soft">Nothing to add by the scale.</Text>}
    </Stack>
  )
}
