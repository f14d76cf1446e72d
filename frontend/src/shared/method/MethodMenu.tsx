import { Menu } from '@chakra-ui/react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct, useMethods } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'

/** A house method copied to several clutches at once. */
export function MethodMenu({ clutches, onDone }: { clutches: string[]; onDone: () => void }) {
  const methods = useMethods().data?.methods ?? []
  const copy = useAct(
    (body: Schemas['MethodCopiesRequest']) => answer(api.POST('/api/clutches/methods', { body })),
    (act) => act,
  )
  const follow = (method: string) => copy.mutate({ method, clutches }, { onSuccess: onDone })
  return (
    <Menu.Root
      positioning={{ placement: 'top-start', strategy: 'fixed' }}
      onSelect={({ value }) => follow(value)}
    >
      <Menu.Trigger asChild>
        <Button flexShrink={0} px={4} disabled={clutches.length === 0 || copy.isPending}>
          Copy a method
        </Button>
      </Menu.Trigger>
      <Menu.Positioner>
        <Menu.Content>
          {methods.map(({ method }) => (
            <Menu.Item key={method.name} value={method.name}>
              {method.name}
            </Menu.Item>
          ))}
        </Menu.Content>
      </Menu.Positioner>
    </Menu.Root>
  )
}
