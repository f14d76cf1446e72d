import { Toaster as ChakraToaster, createToaster, Toast } from '@chakra-ui/react'
import { useEffect, useId, useRef } from 'react'

export const toaster = createToaster({
  placement: 'bottom',
  max: 3,
  // Above the bar of places on a phone, and above a page's own bar with the next act.
  offsets: {
    left: '16px',
    right: '16px',
    top: '16px',
    bottom: 'calc(16px + var(--places-bar) + var(--act-bar, 0px))',
  },
})

let settle = () => {}
/** Once there is somebody to show a toast: what is said before would not be seen. */
export const mounted = new Promise<void>((resolve) => {
  settle = resolve
})

export function Toaster() {
  useEffect(settle, [])
  return (
    <ChakraToaster toaster={toaster} insetInline="4">
      {(toast) => (
        <Toast.Root>
          <Room />
          <Toast.Title>{toast.title}</Toast.Title>
          {toast.action && <Toast.ActionTrigger>{toast.action.label}</Toast.ActionTrigger>}
          <Toast.CloseTrigger aria-label="Put this away">×</Toast.CloseTrigger>
        </Toast.Root>
      )}
    </ChakraToaster>
  )
}

/** Space (px) each toast takes; the page ends that much later, so that none hides its last control. */
const rooms = new Map<string, number>()

function Room() {
  const id = useId()
  const mark = useRef<HTMLSpanElement>(null)
  useEffect(() => {
    rooms.set(id, (mark.current?.parentElement?.offsetHeight ?? 0) + 16)
    makeRoom()
    return () => {
      rooms.delete(id)
      makeRoom()
    }
  }, [id])
  return <span ref={mark} hidden />
}

function makeRoom() {
  const room = [...rooms.values()].reduce((sum, height) => sum + height, 0)
  document.documentElement.style.setProperty('--toast-room', `${room}px`)
}
