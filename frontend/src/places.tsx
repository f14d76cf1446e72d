import { createBrowserRouter } from 'react-router'
import { Frame } from './Frame'
import { Lost } from './shared/ui/Lost'
import { Waiting } from './shared/ui/page'

/** The places of the product that are built; each loads its own script when first opened. */
export const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Lost />,
    hydrateFallbackElement: <Waiting />,
    children: [
      { path: '/', lazy: () => import('./features/today/TodayPlace') },
      { path: '/clutches/:code', lazy: () => import('./features/clutch/ClutchPlace') },
      { path: '/clutches/:code/correct', lazy: () => import('./features/lay-day/CorrectPlace') },
      { path: '/lay-day', lazy: () => import('./features/lay-day/LayDayPlace') },
      { path: '/readings', lazy: () => import('./features/readings/ReadingsPlace') },
      { path: '/bench', lazy: () => import('./features/bench/BenchPlace') },
      { path: '/specimens', lazy: () => import('./features/specimens/SpecimensPlace') },
      { path: '*', element: <Lost /> },
    ],
  },
])
