import type { Schemas } from '@/shared/api/client'
import { under } from '@/shared/api/under'
import { day, dayRange, fullDay } from '@/shared/dates'
import './card.css'

type Clutch = Schemas['ClutchResponse']

/** The clutch card, A6: what one must know with the box in hand, and the code that opens its page. */
export function ClutchCard({ clutch }: { clutch: Clutch }) {
  const pip = clutch.forecast?.typical_pip
  return (
    <article className="clutch-card" aria-label={`Card of ${clutch.code}`}>
      <header>
        <h2>{clutch.code}</h2>
        <p className="count">{clutch.count}</p>
      </header>
      <p className="parents">{clutch.card.parents}</p>
      <p className="laid">laid {fullDay(clutch.laid_at)}</p>
      {pip && (
        <p className="window">
          <span>pips</span>
          <strong>{dayRange(pip.p10, pip.p90)}</strong>
          <span>most likely {day(pip.p50)}</span>
        </p>
      )}
      <dl>
        {clutch.card.lines.map(({ name, text }) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
      {clutch.card.egg_notes && <p className="eggs">Eggs: {clutch.card.egg_notes}</p>}
      <div className="notes" aria-hidden>
        <span />
        <span />
        <span />
      </div>
      <img
        className="code"
        src={under(`/api/clutches/${clutch.code}/qr.svg`)}
        alt={`Opens ${clutch.code}`}
      />
    </article>
  )
}

/** The small label for lid or shelf. */
export function BoxLabel({ label }: { label: Schemas['LabelResponse'] }) {
  const { code, count, parents, laid_at, pips, keeping } = label
  return (
    <article className="box-label" aria-label={`Label of ${code}`}>
      <img src={under(`/api/clutches/${code}/qr.svg`)} alt={`Opens ${code}`} />
      <div>
        <p className="big">
          <strong>{code}</strong> <span>{count}</span>
        </p>
        <p>{parents}</p>
        <p>laid {day(laid_at)}</p>
        {pips && (
          <p>
            pips <strong>{dayRange(pips.p10, pips.p90)}</strong>
          </p>
        )}
        <p className="how">{keeping}</p>
      </div>
    </article>
  )
}
