import { memo, type ReactNode, useId } from 'react'

type Props<T extends string> = {
  value: T
  label: ReactNode
  /** A drawing above the label. */
  drawing?: ReactNode
  /** Said beside the label, softly. */
  note?: ReactNode
  checked: boolean
  onPick: (value: T) => void
} & ({ type: 'radio'; group: string } | { type: 'checkbox'; drawn?: boolean | undefined })

/** One card to choose: drawn again only when it is itself chosen or let go. */
function Card<T extends string>(props: Props<T>) {
  const { type, value, label, drawing, note, checked, onPick } = props
  const id = useId()
  return (
    <label className={classOf(props)}>
      <input
        type={type}
        name={type === 'radio' ? props.group : undefined}
        value={value}
        checked={checked}
        aria-labelledby={id}
        aria-describedby={note ? `${id}note` : undefined}
        onChange={() => onPick(value)}
      />
      <span>
        {drawing}
        <span id={id}>{label}</span>
        {note && <small id={`${id}note`}>{note}</small>}
      </span>
    </label>
  )
}

function classOf<T extends string>(props: Props<T>): string {
  if (props.type === 'radio') return 'choice'
  return props.drawn ? 'choice drawn' : 'choice chip'
}

export const ChoiceCard = memo(Card) as typeof Card
