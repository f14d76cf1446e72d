// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { FormProvider, useForm } from 'react-hook-form'
import { afterEach, describe, expect, it } from 'vitest'
import { shown } from '@/shared/clicked.testing'
import { checkGrams } from '@/shared/units'
import { Button } from './Button'
import { SelectField, TextField } from './fields'
import { TickField } from './TickField'

afterEach(cleanup)

type Values = { name: string; mass: string; role: string; retired: boolean }

function Animal({ onSent }: { onSent: (values: Values) => void }) {
  const form = useForm<Values>({
    defaultValues: { name: '', mass: '', role: '', retired: false },
  })
  return (
    <FormProvider {...form}>
      <form noValidate onSubmit={form.handleSubmit(onSent)}>
        <TextField name="name" label="Name" required />
        <TextField name="mass" label="Mass, g" check={(text) => checkGrams(text, [20, 6000])} />
        <SelectField name="role" label="Role" options={['', 'dam', 'sire']} required />
        <TickField name="retired" label="Retired from breeding" />
        <Button type="submit">Add it</Button>
      </form>
    </FormProvider>
  )
}

describe('a form', () => {
  it('says what is missing at each field, and sends nothing', async () => {
    const sent: Values[] = []
    const { hand } = shown(<Animal onSent={(values) => sent.push(values)} />)
    await hand.click(screen.getByRole('button', { name: 'Add it' }))
    expect(await screen.findByText('Name: fill this in.')).toBeTruthy()
    expect(screen.getByText('Role: choose one.')).toBeTruthy()
    expect(sent).toEqual([])
  })

  it('refuses a mass nothing weighs at its field, and keeps what was typed', async () => {
    const sent: Values[] = []
    const { hand } = shown(<Animal onSent={(values) => sent.push(values)} />)
    await hand.type(screen.getByLabelText(/^Name/), 'Tansy')
    await hand.type(screen.getByLabelText('Mass, g'), '19000')
    await hand.selectOptions(screen.getByLabelText('Role'), 'dam')
    await hand.click(screen.getByRole('button', { name: 'Add it' }))
    expect(await screen.findByText(/19000 g is outside 20 to 6,000 g/)).toBeTruthy()
    expect(screen.getByLabelText('Mass, g')).toHaveProperty('value', '19000')
    expect(sent).toEqual([])
  })

  it('sends what was typed, chosen and ticked', async () => {
    const sent: Values[] = []
    const { hand } = shown(<Animal onSent={(values) => sent.push(values)} />)
    await hand.type(screen.getByLabelText(/^Name/), 'Tansy')
    await hand.type(screen.getByLabelText('Mass, g'), '1900')
    await hand.selectOptions(screen.getByLabelText('Role'), 'dam')
    await hand.click(screen.getByText('Retired from breeding'))
    await hand.click(screen.getByRole('button', { name: 'Add it' }))
    await expect
      .poll(() => sent)
      .toEqual([{ name: 'Tansy', mass: '1900', role: 'dam', retired: true }])
  })
})
