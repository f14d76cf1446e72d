import { Box, chakra, Dialog, Portal } from '@chakra-ui/react'
import { Button } from '@/shared/ui/Button'
import { useKeyMeanings, useKeys } from './useKeys'

/** The keys as they are at this moment, read from where they are listened for. */
export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const layers = useKeyMeanings()
  useKeys('dialog', 'Keys', open ? [{ keys: ['?'], what: 'close this list', act: onClose }] : null)
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(change) => !change.open && onClose()}
      lazyMount
      unmountOnExit
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content display="flex" flexDirection="column">
            <Dialog.Title>Keys</Dialog.Title>
            <Box overflowY="auto" minHeight={0} mb={4}>
              {layers
                .filter((layer) => layer.bindings.length > 0)
                .map((layer) => (
                  <chakra.section key={layer.name} mb={4}>
                    <chakra.h3 color="soft" fontWeight="semibold" mb={1}>
                      {layer.name}
                    </chakra.h3>
                    <chakra.dl
                      display="grid"
                      gridTemplateColumns="7em 1fr"
                      columnGap={6}
                      rowGap={1}
                    >
                      {layer.bindings.map((binding) => (
                        <Box key={binding.what} display="contents">
                          <chakra.dt fontWeight="bold">
                            {binding.shown ?? binding.keys.join('  ')}
                          </chakra.dt>
                          <dd>{binding.what}</dd>
                        </Box>
                      ))}
                    </chakra.dl>
                  </chakra.section>
                ))}
            </Box>
            <Button flexShrink={0} alignSelf="flex-start" onClick={onClose}>
              Close
            </Button>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  )
}
