import type { ReactNode } from 'react'
import { toggled } from '@/shared/toggled'
import { Chips } from '@/shared/ui/Chips'
import { SHELLS, type Shell } from './shells'

/** The marks of a shell, each a switch of its own; none on: it is smooth. */
export function ShellChips({
  shells,
  legend = 'Shell; smooth where none is on',
  onChange,
}: {
  shells: readonly Shell[]
  legend?: ReactNode
  onChange: (shells: Shell[]) => void
}) {
  return (
    <Chips<Shell>
      legend={legend}
      chips={SHELLS.map((value) => ({ value, label: value }))}
      on={[...shells]}
      onToggle={(mark) => onChange(toggled([...shells], mark))}
    />
  )
}
