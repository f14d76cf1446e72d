// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { FormProvider, useForm } from 'react-hook-form'
import { afterEach, describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { shown } from '@/shared/clicked.testing'
import { MethodFields, type MethodValues } from './MethodFields'

afterEach(cleanup)

const told: Schemas['MethodsResponse'] = {
  methods: [],
  reasons: { medium: { perlite: 'Airy.', sponges: 'Quickly made.', 'saturated perlite': 'Much.' } },
  choices: { contact: ['bedded in a hollow', 'on a grid'] },
  temperatures: [
    { above_c: 0, reason: 'Low.' },
    { above_c: 30.5, reason: 'Usual.' },
  ],
  media: [
    { name: 'perlite', ratio: 1, water_by: 'by weight', how: 'Damp.', on_grid: false },
    { name: 'saturated perlite', ratio: 5, water_by: 'by weight', how: 'Pour.', on_grid: true },
    { name: 'sponges', ratio: null, water_by: 'soaked', how: 'Soak them.', on_grid: true },
  ],
}

function Fields() {
  const form = useForm<MethodValues>({
    defaultValues: {
      medium: 'perlite',
      ratio: '1',
      contact: 'bedded in a hollow',
      temperature_c: '31.5',
      dam: 'eggs taken',
    },
  })
  return (
    <FormProvider {...form}>
      <MethodFields told={told} />
    </FormProvider>
  )
}

describe('the medium of a method', () => {
  it('brings its own usual water and its grid along, and its own reason', async () => {
    const { hand } = shown(<Fields />)
    expect(screen.getByText('Airy.')).toBeTruthy()
    expect(screen.getByText('Usual.')).toBeTruthy()
    await hand.selectOptions(screen.getByLabelText('Medium'), 'saturated perlite')
    expect(screen.getByLabelText<HTMLInputElement>(/^Water, g per g/).value).toBe('5')
    expect(screen.getByLabelText<HTMLSelectElement>('Contact').value).toBe('on a grid')
    expect(screen.getByText('Much.')).toBeTruthy()
    expect(screen.queryByText('Airy.')).toBeNull()
  })

  it('asks for no ratio where nothing is mixed by weight', async () => {
    const { hand } = shown(<Fields />)
    await hand.selectOptions(screen.getByLabelText('Medium'), 'sponges')
    expect(screen.queryByLabelText(/^Water, g per g/)).toBeNull()
    expect(screen.getByText('Soak them.')).toBeTruthy()
  })
})
