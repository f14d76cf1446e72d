import { Toaster as ChakraToaster, createToaster, Toast } from '@chakra-ui/react'
import { inKeepersUnit, temperatureUnit } from '@/shared/units'

const toaster = createToaster({
  placement: 'bottom',
  max: 3,
  // Above the bar of places on a phone, and above a page's own bar with the next act.
  offsets: {
    left: '16px',
    right: '16px',
    top: '16px',
    bottom: 'calc(76px + var(--act-bar, 0px))',
  },
})

/** Says what was recorded, with its undo beside it. */
export function showAct(summary: string, undo: () => void, label = 'Undo') {
  toaster.create({
    title: inKeepersUnit(summary, temperatureUnit()),
    duration: 9000,
    action: { label, onClick: undo },
  })
}

export function showProblem(text: string) {
  toaster.create({ title: text, type: 'error', duration: 12000 })
}

export function Toaster() {
  return (
    <ChakraToaster toaster={toaster} insetInline="4">
      {(toast) => (
        <Toast.Root>
          <Toast.Title>{toast.title}</Toast.Title>
          {toast.action && <Toast.ActionTrigger>{toast.action.label}</Toast.ActionTrigger>}
        </Toast.Root>
      )}
    </ChakraToaster>
  )
}
