import { expect, it } from 'vitest'
import { OpenedEgg } from '@/eggs/OpenedEgg'
import { markup } from '@/shared/markup.testing'
import { withFinding } from './findings'

const form = { kind: 'form' as const, several: true, alone: ['normal'] }
const yolk = { kind: 'yolk' as const, several: false, alone: [] }

it('keeps one finding of a kind, or several where several can be', () => {
  expect(withFinding({ yolk: ['usual'] }, yolk, 'hard')).toEqual({ yolk: ['hard'] })
  expect(withFinding({ yolk: ['hard'] }, yolk, 'hard')).toEqual({ yolk: [] })
  expect(withFinding({ form: ['kink'] }, form, 'cleft')).toEqual({ form: ['kink', 'cleft'] })
})

it('lets normal stand alone', () => {
  expect(withFinding({ form: ['kink', 'cleft'] }, form, 'normal')).toEqual({ form: ['normal'] })
  expect(withFinding({ form: ['normal'] }, form, 'kink')).toEqual({ form: ['kink'] })
})

it('draws an opened egg as it was found', () => {
  const drawn = (found: Record<string, string[]>) => markup(<OpenedEgg found={found} size={100} />)
  const grown = drawn({ stage: ['full term'], cord: ['around'] })
  expect(grown.length).toBeGreaterThan(drawn({ stage: ['full term'] }).length)
  expect(drawn({ stage: ['yolk only'] })).toBe(drawn({}))
  expect(drawn({ outside: ['all over'] }).match(/<circle/g)).toHaveLength(30)
  expect(drawn({ yolk: ['absorbed'] })).toBe(drawn({}))
})
