import { chakra, Dialog, Portal } from '@chakra-ui/react'
import { Button } from '@/shared/ui/Button'

const KEYS = [
  ['t  r  c  a  l  b  s', 'Today, Round, Cabinets, Animals, Lay day, Bench, Settings'],
  ['n', 'night room or bench theme'],
  ['0 to 4', 'grade of the chosen egg (Round, Clutch)'],
  [
    'v m o w y i d f h',
    'torch, mould, smell, wet, colour, movement, dark body, feel, touch (Round)',
  ],
  ['k', 'the rest as before, and shut (Round)'],
  ['1 to 6', 'what the torch shows (Lay day, eggs)'],
  ['arrow keys', 'choose an egg (Round, Clutch), move it (Lay day, Shift for far)'],
  ['up, down', 'move the chosen box to another shelf (Cabinets)'],
  ['arrows + -', 'move and zoom the climate trace (Cabinets)'],
  ['u', 'undo what was recorded last at this clutch'],
  ['?', 'these keys'],
]

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(change) => !change.open && onClose()}
      lazyMount
      unmountOnExit
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Title>Keys</Dialog.Title>
            <chakra.dl
              display="grid"
              gridTemplateColumns="auto 1fr"
              columnGap={6}
              rowGap={2}
              mb={6}
            >
              {KEYS.map(([keys, what]) => (
                <chakra.div key={keys} display="contents">
                  <chakra.dt fontWeight={750} whiteSpace="pre">
                    {keys}
                  </chakra.dt>
                  <dd>{what}</dd>
                </chakra.div>
              ))}
            </chakra.dl>
            <Button onClick={onClose}>Close</Button>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  )
}
