import { useController, useFormContext } from 'react-hook-form'
import { Tick, type TickProps } from './Tick'

/** Yes or no, of the form around it. */
export function TickField({
  name,
  ...tick
}: { name: string } & Omit<TickProps, 'checked' | 'onChange'>) {
  const { field } = useController({ name, control: useFormContext().control })
  return <Tick checked={field.value === true} onChange={field.onChange} {...tick} />
}
