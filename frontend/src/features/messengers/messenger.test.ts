import { expect, it } from 'vitest'
import { minuteOf, quietInWords } from './messenger'

it('turns times of day into minutes and back', () => {
  expect(minuteOf('22:00')).toBe(1320)
  expect(minuteOf('07:05')).toBe(425)
  expect(minuteOf('')).toBeNull()
  expect(quietInWords({ quiet_from_min: 1320, quiet_until_min: 425 })).toBe('quiet 22:00 to 07:05')
  expect(quietInWords({ quiet_from_min: null, quiet_until_min: null })).toBeNull()
  expect(quietInWords({ quiet_from_min: 60, quiet_until_min: 60 })).toBeNull()
})
