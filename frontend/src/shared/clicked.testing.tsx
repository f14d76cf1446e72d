import { ChakraProvider } from '@chakra-ui/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { type ReactNode, useState } from 'react'
import { MemoryRouter } from 'react-router'
import { system } from './theme/system'

/** Shows a part of a page as the application would, and returns the hand that uses it. Tests only. */
export function shown(part: ReactNode, at = '/') {
  const hand = userEvent.setup()
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false, enabled: false } } })
  const view = render(
    <QueryClientProvider client={queries}>
      <ChakraProvider value={system}>
        <MemoryRouter initialEntries={[at]}>{part}</MemoryRouter>
      </ChakraProvider>
    </QueryClientProvider>,
  )
  return { hand, ...view }
}

/** Keeps a value for a part that is told what it holds, as a place would. */
export function Held<T>({
  from,
  children,
}: {
  from: T
  children: (value: T, set: (value: T) => void) => ReactNode
}) {
  const [value, set] = useState(from)
  return children(value, set)
}
