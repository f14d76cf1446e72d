import { expect, it } from 'vitest'
import { browserNamed } from './browserNamed'

it.each([
  [
    'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/131.0.0.0 Safari/537.36',
    'Chrome on Linux',
  ],
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 17_5 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.5 Mobile/15E148 Safari/604.1',
    'Safari on iOS',
  ],
  ['', 'not a browser'],
  ['a script of the house', 'a script of the house'],
])('a browser is named by what a person calls it: %s', (agent, name) => {
  expect(browserNamed(agent)).toBe(name)
})
