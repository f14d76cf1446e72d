import { ChakraProvider } from '@chakra-ui/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { MemoryRouter } from 'react-router'
import { vi } from 'vitest'
import { system } from './theme/system'
import type { TemperatureUnit } from './units'

/** What a part of a page says, as HTML, for a keeper who reads °C or °F. Tests only. */
export function markup(part: ReactNode, unit: TemperatureUnit = 'C'): string {
  vi.stubGlobal('localStorage', { getItem: () => unit, setItem() {} })
  return renderToStaticMarkup(
    <QueryClientProvider client={new QueryClient()}>
      <ChakraProvider value={system}>
        <MemoryRouter>{part}</MemoryRouter>
      </ChakraProvider>
    </QueryClientProvider>,
  )
}

/** The same without its tags: what a reader reads. */
export function words(part: ReactNode, unit: TemperatureUnit = 'C'): string {
  return markup(part, unit)
    .replace(/<style[^>]*>.*?<\/style>/g, '')
    .replace(/<[^>]+>/g, ' ')
    .replace(/&#x27;/g, "'")
    .replace(/\s+/g, ' ')
    .trim()
}
