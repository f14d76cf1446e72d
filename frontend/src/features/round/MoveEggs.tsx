import { Flex, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { eggRef, nextBoxName } from '@/shared/eggNames'
import { Button } from '@/shared/ui/Button'
import { Select } from './boxFields'
import { type ChangeDraft, type Draft, type Target, withMove } from './draft'
import type { Round, RoundBox } from './queries'

type Props = {
  box: RoundBox
  round: Round
  moves: Draft['moves']
  onChange: ChangeDraft
}

/** Puts one egg into a box by itself, a hatching box, or one that is there. */
export function MoveEgg({ egg, ...props }: Props & { egg: Schemas['EggResponse'] }) {
  const { moves, onChange } = props
  const full = useRules().data?.hatch.full_term_from ?? 1
  const target = moves[egg.name]
  const put = (to: Target | null) => onChange((held) => withMove(held, egg.name, to))
  if (target) {
    return (
      <Flex align="center" gap={3} wrap="wrap">
        <Text flex="1">{movedWords(target)}</Text>
        <Button size="small" onClick={() => put(null)}>
          Leave it here
        </Button>
      </Flex>
    )
  }
  const stuck = stuckTo(egg, props.box)
  return (
    <div>
      <Text color="soft" mb={1}>
        Put it into another box
      </Text>
      {stuck.length > 0 && (
        <Text mb={2} fontWeight="semibold">
          It sticks to {stuck.length === 1 ? 'egg' : 'eggs'} {stuck.join(', ')}: a shell pulled off
          when dry tears. Leave it, or move them all.
        </Text>
      )}
      <Flex gap={2} wrap="wrap" align="flex-end">
        <Button size="small" onClick={() => put(newBox(props, 'incubation'))}>
          One by itself
        </Button>
        {(egg.pipped_at || egg.share >= full) && (
          <Button size="small" onClick={() => put(hatchingBox(props))}>
            A hatching box
          </Button>
        )}
        <OtherBox {...props} label="One that is there" onChoose={(name) => put({ to: name })} />
      </Flex>
    </div>
  )
}

/** Names of the eggs of the same clump that lie in the box with it. */
function stuckTo(egg: Schemas['EggResponse'], box: RoundBox): string[] {
  if (egg.clump == null) return []
  const { clutch } = eggRef(egg.name)
  return box.eggs
    .filter((other) => other.name !== egg.name && other.clump === egg.clump)
    .filter((other) => eggRef(other.name).clutch === clutch && !other.removed_at)
    .filter((other) => !other.emerged_at)
    .map((other) => other.name)
}

/** Puts all eggs of the box into another: two boxes become one, or all go onto damp paper. */
export function MoveAll(props: Props) {
  const { box, moves, onChange } = props
  const full = useRules().data?.hatch.full_term_from ?? 1
  const lying = box.eggs.filter((egg) => !egg.removed_at && !egg.emerged_at)
  const all = (target: Target | null) =>
    onChange((held) => lying.reduce((all, { name }) => withMove(all, name, target), held))
  const moved = Object.keys(moves).length
  if (moved > 0) {
    return (
      <Flex align="center" gap={3} wrap="wrap">
        <Text flex="1">
          {moved === 1 ? 'One egg goes' : `${moved} eggs go`} into another box:{' '}
          {[...new Set(Object.values(moves).map(movedWords))].join(' ')}
        </Text>
        <Button size="small" onClick={() => all(null)}>
          Leave all here
        </Button>
      </Flex>
    )
  }
  return (
    <div>
      <Text color="soft" mb={1}>
        Put all eggs into another box
      </Text>
      <Flex gap={2} wrap="wrap" align="flex-end">
        {lying.some((egg) => egg.pipped_at || egg.share >= full) && (
          <Button size="small" onClick={() => all(hatchingBox(props))}>
            A hatching box
          </Button>
        )}
        <OtherBox {...props} label="Together with" onChoose={(name) => all({ to: name })} />
      </Flex>
    </div>
  )
}

function OtherBox({
  box,
  round,
  label,
  onChoose,
}: Props & { label: string; onChoose: (name: string) => void }) {
  const others = round.boxes.filter(({ name }) => name !== box.name)
  if (others.length === 0) return null
  return (
    <Select
      label={label}
      value=""
      options={[
        { value: '', label: 'choose a box' },
        ...others.map(({ name, cabinet, shelf }) => ({
          value: name,
          label: `${name}; ${cabinet}, ${shelf}`,
        })),
      ]}
      onChange={(name) => name && onChoose(name)}
    />
  )
}

/** A new box under the next free name; eggs put into one in the same visit share it. */
function newBox({ box, round, moves }: Props, kind: 'incubation' | 'hatching'): Target {
  const made = Object.values(moves).flatMap((target) => ('to' in target ? [] : [target.name]))
  const taken = [...round.boxes.map(({ name }) => name), ...made]
  return { name: nextBoxName(box.name, taken), kind }
}

/** The hatching box of this visit, one of the clutch that is there already, or a new one. */
function hatchingBox(props: Props): Target {
  const { box, round, moves } = props
  const begun = Object.values(moves).find((t) => !('to' in t) && t.kind === 'hatching')
  if (begun) return begun
  const codes = box.clutches.map(({ code }) => code)
  const there = round.boxes.find(
    ({ kind, clutches }) =>
      kind === 'hatching' && clutches.some(({ code }) => codes.includes(code)),
  )
  return there ? { to: there.name } : newBox(props, 'hatching')
}

function movedWords(target: Target): string {
  if ('to' in target) return `Goes into box ${target.to}.`
  return target.kind === 'hatching'
    ? `Goes into a new hatching box ${target.name}, on damp warm paper: write that on its lid.`
    : `Goes into a new box ${target.name}, medium and closing as here: write that on its lid.`
}
