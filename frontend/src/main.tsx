import '@fontsource-variable/atkinson-hyperlegible-next'
import { ChakraProvider } from '@chakra-ui/react'
import { QueryClientProvider } from '@tanstack/react-query'
import { lazy, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { Places } from './places'
import { queryClient } from './shared/api/queries'
import { startOffline } from './shared/offline/startOffline'
import { system } from './shared/theme/system'
import { startTheme } from './shared/theme/useTheme'

const Toaster = lazy(() =>
  import('./shared/ui/toaster').then(({ Toaster }) => ({ default: Toaster })),
)

startTheme()
void startOffline()

const root = document.getElementById('root')
if (!root) throw new Error('the page has no root element')

createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <ChakraProvider value={system}>
        <Places />
        <Suspense>
          <Toaster />
        </Suspense>
      </ChakraProvider>
    </QueryClientProvider>
  </StrictMode>,
)
