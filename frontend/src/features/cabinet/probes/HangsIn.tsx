import type { Place } from '@/features/readings/places'
import { SelectField } from '@/shared/ui/fields'

/** Where a probe hangs, to be chosen in the form around it. */
export function HangsIn({ places, nowhere }: { places: Place[]; nowhere?: string }) {
  return (
    <SelectField
      name="place"
      label="Hangs in"
      required
      options={[
        { value: '', label: 'choose' },
        ...places.map(({ value, label }) => ({ value, label })),
        ...(nowhere ? [{ value: nowhere, label: 'nowhere: taken down' }] : []),
      ]}
    />
  )
}
