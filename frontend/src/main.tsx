import '@fontsource-variable/atkinson-hyperlegible-next'
import { ChakraProvider } from '@chakra-ui/react'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { router } from './places'
import { queryClient } from './shared/api/queries'
import { startOffline } from './shared/offline/startOffline'
import { system } from './shared/theme/system'
import { startTheme } from './shared/theme/useTheme'
import { Toaster } from './shared/ui/toaster'

startTheme()
void startOffline()

const root = document.getElementById('root')
if (!root) throw new Error('the page has no root element')

createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <ChakraProvider value={system}>
        <RouterProvider router={router} />
        <Toaster />
      </ChakraProvider>
    </QueryClientProvider>
  </StrictMode>,
)
