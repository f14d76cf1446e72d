import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { LidDrops } from './LidDrops'

const drops = (wet: string) =>
  (renderToStaticMarkup(<LidDrops wet={wet} from={0} to={100} y={0} />).match(/<line/g) ?? [])
    .length

describe('condensation under a lid', () => {
  it('grows from the edges to rain', () => {
    expect(drops('none')).toBe(0)
    expect(drops('edges')).toBeGreaterThan(0)
    expect(drops('half')).toBeGreaterThan(drops('edges'))
    expect(drops('raining')).toBeGreaterThan(drops('half'))
  })
})
