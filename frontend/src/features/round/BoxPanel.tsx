import { chakra, Grid, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { GRADE_WORDS, GRADES } from '@/eggs/look'
import { useRules } from '@/shared/api/queries'
import { toggled } from '@/shared/toggled'
import { Button } from '@/shared/ui/Button'
import { Chips } from '@/shared/ui/Chips'
import { Choices } from '@/shared/ui/Choices'
import { temperature, useTemperatureUnit } from '@/shared/units'
import { Grams, Select, Words } from './boxFields'
import { BOX_SIGNS } from './boxSigns'
import { type ChangeDraft, type Draft, grams, topUpFor, withAllGraded, wrongWith } from './draft'
import { FreshMedium } from './FreshMedium'
import { MoveAll } from './MoveEggs'
import { type Round, type RoundBox, useLimits } from './queries'
import { BOX_ACTS } from './signs'

type Props = {
  box: RoundBox
  draft: Draft
  onChange: ChangeDraft
}

/** The box itself: what it weighs and what to add, lid and medium, what is done at it. */
export function BoxPanel({ box, round, draft, onChange }: Props & { round: Round }) {
  const here = `${box.cabinet}/${box.shelf}`
  const rules = useRules().data
  const wrong = wrongWith(draft, useLimits(box))
  return (
    <chakra.section aria-label="Box" display="flex" flexDirection="column" gap={5}>
      <Water box={box} draft={draft} onChange={onChange} />
      <AllEggs box={box} onChange={onChange} />
      {BOX_SIGNS.map((group) => (
        <BoxSign
          key={group.kind}
          group={group}
          value={draft.signs[group.kind] ?? null}
          onChange={onChange}
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
        chips={BOX_ACTS.filter(({ value }) => isPossible(value, box))}
        on={draft.acts}
        onToggle={(act) => onChange((held) => ({ ...held, acts: toggled(held.acts, act) }))}
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
            onChange((held) => ({
              ...held,
              closing: closing === box.box_water.closing ? null : (closing as Draft['closing']),
            }))
          }
        />
        <Select
          label="Put back on"
          value={draft.shelf ? `${draft.shelf.cabinet}/${draft.shelf.shelf}` : here}
          options={round.shelves.map(({ cabinet, shelf }) => ({
            value: `${cabinet}/${shelf}`,
            label: `${cabinet}, ${shelf}`,
          }))}
          onChange={(place) => {
            const [cabinet = '', shelf = ''] = place.split('/')
            onChange((held) => ({ ...held, shelf: place === here ? null : { cabinet, shelf } }))
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
          onChange={(change) => onChange((held) => ({ ...held, change }))}
        />
      )}
      <MoveAll box={box} round={round} moves={draft.moves} onChange={onChange} />
      <FreshMedium box={box} draft={draft} onChange={onChange} />
      <Words
        label="Note on this visit"
        value={draft.note}
        onChange={(note) => onChange((held) => ({ ...held, note }))}
      />
    </chakra.section>
  )
}

/** What is seen, felt or smelled of the box. */
function BoxSign({
  group,
  value,
  onChange,
}: {
  group: (typeof BOX_SIGNS)[number]
  value: string | null
  onChange: ChangeDraft
}) {
  return (
    <Choices
      legend={group.legend}
      columns={group.choices.length}
      choices={group.choices.map((choice) => ({
        ...choice,
        label: <Span fontSize="small">{choice.label}</Span>,
      }))}
      value={value}
      onChoose={(chosen) =>
        onChange((held) => ({ ...held, signs: { ...held.signs, [group.kind]: chosen } }))
      }
    />
  )
}

/** A grid is taken out where there is one, and a cloth taken off where one lies. */
function isPossible(act: Draft['acts'][number], box: RoundBox): boolean {
  if (act === 'grid removed') return box.on_grid
  if (act === 'damp cloth taken off') return box.cloth_on
  return act !== 'damp cloth over the eggs' || !box.cloth_on
}

/** One answer for every egg; those that differ are tapped afterwards. */
function AllEggs({ box, onChange }: Omit<Props, 'draft'>) {
  const [open, setOpen] = useState(false)
  if (!open) {
    return (
      <Button type="button" size="small" alignSelf="start" onClick={() => setOpen(true)}>
        All eggs alike
      </Button>
    )
  }
  return (
    <Choices
      legend="All eggs"
      columns={{ base: 3, md: 5 }}
      choices={GRADES.map((grade) => ({
        value: String(grade),
        label: <Span fontSize="fine">{GRADE_WORDS[grade]}</Span>,
      }))}
      value={null}
      onChoose={(grade) => {
        onChange((held) => withAllGraded(held, box.eggs, Number(grade)))
        setOpen(false)
      }}
    />
  )
}

function Water({ box, draft, onChange }: Props) {
  const unit = useTemperatureUnit()
  const { left } = box.box_water
  const mass = grams(draft.mass)
  const wrong = wrongWith(draft, useLimits(box))
  const step = topUpFor(box.top_ups, wrong?.field === 'mass' ? null : mass)
  // By the scale where it was weighed just now, else by the estimate.
  const add = step ?? (mass === null && box.box_water.add ? box.box_water.add : undefined)
  const measured = left !== null && left.weighings > 1
  return (
    <Stack gap={3}>
      {left && (
        <Text fontSize="lead">
          Water left: <Strong>{Math.round(left.share * 100)} %</Strong>
          <Span color="soft">
            {' '}
            ({Math.round(left.share_low * 100)} to {Math.round(left.share_high * 100)} %,{' '}
            {measured ? `by ${left.weighings} weighings` : 'estimated; weighing tells'})
          </Span>
        </Text>
      )}
      <Grid templateColumns="1fr 1fr" gap={4}>
        <Grams
          label="Box weighs, g"
          value={draft.mass}
          error={wrong?.field === 'mass' ? wrong.words : undefined}
          help={weighedBefore(box)}
          onChange={(text) => onChange((held) => ({ ...held, mass: text }))}
        />
        <Grams
          label="Water added, g"
          value={draft.water}
          error={wrong?.field === 'water' ? wrong.words : undefined}
          help="1 g is 1 ml"
          onChange={(text) => onChange((held) => ({ ...held, water: text }))}
        />
      </Grid>
      {add && add.today_g > 0 && (
        <Pour
          grams={add.today_g}
          at={temperature(box.box_c, unit)}
          split={add.split}
          by={step ? null : measured ? 'by its last weighing' : 'by estimate'}
          poured={draft.water === String(add.today_g)}
          onPour={(water) => onChange((held) => ({ ...held, water }))}
        />
      )}
      {step && step.add_g === 0 && <Text color="soft">Nothing to add by the scale.</Text>}
    </Stack>
  )
}

function weighedBefore({ box_water: { last_weighed_g, reference_g } }: Props['box']): string {
  if (last_weighed_g !== null) return `last ${last_weighed_g} g`
  return reference_g !== null ? `set up ${reference_g} g` : 'not weighed before'
}

type PourProps = {
  /** To pour today. */
  grams: number
  /** How warm, with its unit. */
  at: string
  /** The rest follows tomorrow. */
  split: boolean
  /** What it was worked out from; null where the box was weighed just now. */
  by: string | null
  poured: boolean
  onPour: (water: string) => void
}

/** The advised water, recorded with one tap and taken back with another. */
function Pour({ grams, at, split, by, poured, onPour }: PourProps) {
  return (
    <chakra.button
      type="button"
      aria-pressed={poured}
      onClick={() => onPour(poured ? '' : String(grams))}
      minHeight="3.5rem"
      px={4}
      textAlign="start"
      border="2.5px solid"
      borderColor="yolkInk"
      borderRadius="small"
      cursor="pointer"
      _hover={{ bg: 'faint' }}
      _pressed={{ borderColor: 'ink', bg: 'sheet' }}
    >
      {poured ? 'Added' : 'Add'} <Strong fontSize="large">{grams} ml</Strong> at {at}, along the
      side, never on eggs
      {split && '; the rest tomorrow'}
      {by && <Span color="soft"> ({by})</Span>}
    </chakra.button>
  )
}
