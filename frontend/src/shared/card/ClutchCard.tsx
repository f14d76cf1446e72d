import type { Schemas } from '@/shared/api/client'
import { day, dayRange, fullDay } from '@/shared/dates'
import { temperature, useTemperatureUnit } from '@/shared/units'
import './card.css'

type Clutch = Schemas['ClutchTold']

/** The clutch card, A6: what one must know with the box in hand, and the code that opens its page. */
export function ClutchCard({ clutch }: { clutch: Clutch }) {
  const unit = useTemperatureUnit()
  const { method } = clutch
  const pip = clutch.forecast?.typical_pip
  const lines = clutch.maternal
    ? [
        ['Dam keeps', clutch.box.cabinet],
        ['Cutting', method.cutting],
      ]
    : [
        [
          'Place',
          `${clutch.box.cabinet}, ${clutch.box.shelf}, ${temperature(clutch.box.set_point_c, unit)}`,
        ],
        ['Medium', `${clutch.box.medium}, ${method.contact}`],
        ['Closing', clutch.box.closing ?? ''],
        ['Set up', setUp(clutch)],
        ['Visits', method.visits],
        ['Cutting', method.set_day ? `${method.cutting} (${method.set_day})` : method.cutting],
      ]
  return (
    <article className="clutch-card" aria-label={`Card of ${clutch.code}`}>
      <header>
        <h2>{clutch.code}</h2>
        <p className="count">{clutch.count}</p>
      </header>
      <p className="parents">{parents(clutch)}</p>
      <p className="laid">laid {fullDay(clutch.laid_at)}</p>
      {pip && (
        <p className="window">
          <span>pips</span>
          <strong>{dayRange(pip.p10, pip.p90)}</strong>
          <span>most likely {day(pip.p50)}</span>
        </p>
      )}
      <dl>
        {lines.map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <EggNotes clutch={clutch} />
      <div className="notes" aria-hidden>
        <span />
        <span />
        <span />
      </div>
      <img
        className="code"
        src={`/api/clutches/${clutch.code}/qr.svg`}
        alt={`Opens ${clutch.code}`}
      />
    </article>
  )
}

/** The small label for lid or shelf. */
export function BoxLabel({ clutch }: { clutch: Clutch }) {
  const pip = clutch.forecast?.typical_pip
  return (
    <article className="box-label" aria-label={`Label of ${clutch.code}`}>
      <img src={`/api/clutches/${clutch.code}/qr.svg`} alt={`Opens ${clutch.code}`} />
      <div>
        <p className="big">
          <strong>{clutch.code}</strong> <span>{clutch.count}</span>
        </p>
        <p>{parents(clutch)}</p>
        <p>laid {day(clutch.laid_at)}</p>
        {pip && (
          <p>
            pips <strong>{dayRange(pip.p10, pip.p90)}</strong>
          </p>
        )}
        <p className="how">{clutch.maternal ? 'dam keeps the eggs' : clutch.box.medium}</p>
      </div>
    </article>
  )
}

/** What sets single eggs apart: slugs, weak vessels, turned, torn. */
function EggNotes({ clutch }: { clutch: Clutch }) {
  const notes = clutch.eggs.flatMap((egg) => {
    const said = [
      egg.slug && 'slug',
      egg.shell !== 'smooth' && egg.shell,
      egg.torchlight.vessels &&
        egg.torchlight.vessels !== 'strong' &&
        `vessels ${egg.torchlight.vessels}`,
      ...egg.events.filter((event) => event !== 'separated'),
    ].filter(Boolean)
    return said.length ? [`${egg.number} ${said.join(', ')}`] : []
  })
  return notes.length ? <p className="eggs">Eggs: {notes.join('; ')}</p> : null
}

function parents(clutch: Clutch): string {
  return clutch.sire ? `${clutch.dam} × ${clutch.sire}` : clutch.dam
}

function setUp({ box }: Clutch): string {
  const parts = [
    box.dry_mass_g !== null && `${box.dry_mass_g.toFixed(0)} g dry`,
    box.water_g !== null && `${box.water_g.toFixed(0)} g water`,
    box.set_up_mass_g !== null && `whole box ${box.set_up_mass_g.toFixed(0)} g`,
  ].filter(Boolean)
  return parts.join(', ') || 'not weighed'
}
