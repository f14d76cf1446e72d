import { Box, chakra, Dialog, Portal, Text } from '@chakra-ui/react'
import { useLocation } from 'react-router'
import { useRules } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { HELP } from '../help/texts'
import { placeOf } from '../places'
import { useKeyMeanings, useKeys } from './useKeys'

/** What this place is for, and the keys as they are at this moment, read from where they are heard. */
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
            <Dialog.Title>Help and keys</Dialog.Title>
            <Box overflowY="auto" minHeight={0} mb={4}>
              <OfThisPlace />
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

/** A place explains itself: what it is for, what to know to trust it, and where hands may be hurt. */
function OfThisPlace() {
  const place = placeOf(useLocation().pathname)
  const help = HELP[place.to]
  const cautions = useRules().data?.cautions ?? []
  if (!help) return null
  return (
    <chakra.section aria-label={place.name} mb={5}>
      <chakra.h3 fontWeight="heavy">{place.name}</chakra.h3>
      <Text>{help.about}</Text>
      <chakra.ul mt={2} ps={5} listStyleType="disc">
        {help.lines.map((line) => (
          <chakra.li key={line} mb={1}>
            {line}
          </chakra.li>
        ))}
      </chakra.ul>
      {cautions
        .filter(({ moment }) => help.cautions?.includes(moment))
        .map(({ moment, text }) => (
          <Text key={moment} mt={3} borderStart="6px solid" borderColor="yolkInk" ps={3}>
            {text}
          </Text>
        ))}
    </chakra.section>
  )
}
