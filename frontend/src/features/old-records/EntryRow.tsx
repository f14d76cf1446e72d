import { Field, Grid, Input } from '@chakra-ui/react'
import { differenceInCalendarDays, parseISO } from 'date-fns'
import { type KeyboardEvent, useRef, useState } from 'react'
import { plainDay } from '@/shared/dates'
import { completed } from './keystrokes'
import {
  cellsOf,
  FIELDS,
  type FieldName,
  firstOpen,
  offeredSire,
  type Texts,
  type Told,
  toldBy,
  type Writing,
} from './lines'
import { NameField } from './NameField'
import type { Cells, PastClutch } from './queries'

const LABELS: Record<FieldName, string> = {
  dam: 'Dam',
  sire: 'Sire',
  laid: 'Laid',
  count: 'Eggs-slugs',
  hatched: 'Hatched',
  first_pip: 'First pip',
}

const MISSING: Record<FieldName, string> = {
  dam: 'Which dam?',
  sire: '',
  laid: 'A day, like 12.6. or 6/12.',
  count: 'Like 7-2.',
  hatched: 'No more than were fertile.',
  first_pip: 'Days after laying, like 58.',
}

/** One card as it is typed; a field that nothing could follow any more goes on by itself. */
export function EntryRow({
  texts,
  writing,
  names,
  written,
  past,
  onTexts,
  onFinish,
}: {
  texts: Texts
  writing: Writing
  names: Record<'dam' | 'sire', string[]>
  /** Lines typed before, the latest first. */
  written: Cells[]
  past: PastClutch[]
  onTexts: (texts: Texts) => void
  onFinish: (cells: Cells) => void
}) {
  const inputs = useRef(new Map<FieldName, HTMLInputElement>())
  const [missing, setMissing] = useState<FieldName | null>(null)
  const told = toldBy(texts, writing)
  const named = (role: 'dam' | 'sire') =>
    role === 'sire' ? new Set<string>() : damsOf(written, writing.year)

  const go = (field: FieldName) => inputs.current.get(field)?.focus()
  const finish = (next: Texts) => {
    const now = toldBy(next, writing)
    const open = firstOpen(next, now)
    setMissing(open)
    if (open) return go(open)
    onFinish(cellsOf(next, now))
    go('dam')
  }
  const type = (field: FieldName, text: string) => {
    const next = { ...texts, [field]: text }
    const now = field === 'dam' || field === 'sire' ? null : toldBy(next, writing)[field]
    const shown = { ...next, ...(now && { [field]: now.text }) }
    onTexts(shown)
    setMissing(null)
    if (!now?.done || text.length < texts[field].length) return
    if (field === 'first_pip') finish(shown)
    else go(after(field))
  }
  const onKeyDown = (field: FieldName) => (event: KeyboardEvent) => {
    const last = field === 'first_pip' && event.key === 'Tab' && !event.shiftKey
    if (event.key !== 'Enter' && !(last && texts.dam)) return
    event.preventDefault()
    if (field === 'dam' || field === 'sire') go(after(field))
    else finish(texts)
  }
  const keep = (field: FieldName) => (input: HTMLInputElement | null) => {
    if (input) inputs.current.set(field, input)
  }

  return (
    <Grid
      templateColumns={{ base: '1fr 1fr', md: '1.3fr 1.3fr 1fr 0.9fr 0.8fr 1.1fr' }}
      gap={3}
      alignItems="start"
      maxWidth="60rem"
    >
      {(['dam', 'sire'] as const).map((role) => (
        <NameField
          key={role}
          label={LABELS[role]}
          value={texts[role]}
          complete={(typed) => completed(typed, names[role], named(role))}
          offered={role === 'sire' ? offeredSire(texts.dam, written, past) : ''}
          problem={missing === role ? MISSING[role] : undefined}
          inputRef={keep(role)}
          onName={(name) => type(role, name)}
          onKeyDown={onKeyDown(role)}
        />
      ))}
      {(['laid', 'count', 'hatched', 'first_pip'] as const).map((field) => (
        <Field.Root key={field} invalid={missing === field}>
          <Field.Label>{LABELS[field]}</Field.Label>
          <Input
            ref={keep(field)}
            value={texts[field]}
            autoComplete="off"
            inputMode="numeric"
            onChange={(event) => type(field, event.target.value.trim())}
            onKeyDown={onKeyDown(field)}
          />
          {missing === field ? (
            <Field.ErrorText>{MISSING[field]}</Field.ErrorText>
          ) : (
            <Field.HelperText minHeight="1.25rem">{read(field, told)}</Field.HelperText>
          )}
        </Field.Root>
      ))}
    </Grid>
  )
}

/** How a field was understood: "12 Jun 2019", "9 Aug 2019, day 58". */
function read(field: keyof Told, told: Told): string {
  const text = told[field].told
  if (text === null) return ''
  if (field === 'laid') return plainDay(text)
  if (field !== 'first_pip' || told.laid.told === null) return ''
  const days = differenceInCalendarDays(parseISO(text), parseISO(told.laid.told))
  return `${plainDay(text)}, day ${days}`
}

/** Dams that have a line of that season already. */
function damsOf(written: Cells[], year: number): Set<string> {
  const lines = written.filter(({ laid }) => laid?.startsWith(`${year}-`))
  return new Set(lines.flatMap(({ dam }) => dam?.toLowerCase() ?? []))
}

function after(field: FieldName): FieldName {
  return FIELDS[FIELDS.indexOf(field) + 1] ?? 'dam'
}
