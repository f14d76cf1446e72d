import { createBrowserRouter } from 'react-router'
import { Frame } from './frame/Frame'
import { under } from './shared/api/under'
import { Lost } from './shared/ui/Lost'
import { Waiting } from './shared/ui/page'

/** The places of the product that are built; each loads its own script when first opened. */
export const router = createBrowserRouter(
  [
    {
      element: <Frame />,
      errorElement: <Lost />,
      hydrateFallbackElement: <Waiting />,
      children: [
        { path: '/', lazy: () => import('./features/today/TodayPlace') },
        { path: '/clutches/:code', lazy: () => import('./features/clutch/ClutchPlace') },
        { path: '/clutches/:code/eggs/:number', lazy: () => import('./features/egg/EggPlace') },
        { path: '/round', lazy: () => import('./features/round/RoundPlace') },
        { path: '/round/:box', lazy: () => import('./features/round/BoxPlace') },
        { path: '/visits/:visit', lazy: () => import('./features/round/CorrectVisitPlace') },
        {
          path: '/clutches/:code/correct',
          lazy: () => import('./features/lay-day/correct/CorrectPlace'),
        },
        { path: '/clutches/:code/card', lazy: () => import('./features/card/CardPlace') },
        { path: '/hatch', lazy: () => import('./features/hatch/HatchPlace') },
        { path: '/hatch/:code', lazy: () => import('./features/hatch/ClutchHatchPlace') },
        { path: '/hatchlings', lazy: () => import('./features/hatchlings/HatchlingsPlace') },
        {
          path: '/hatchlings/:hatchling',
          lazy: () => import('./features/hatchlings/HatchlingPlace'),
        },
        { path: '/losses', lazy: () => import('./features/losses/LossesPlace') },
        { path: '/losses/:code', lazy: () => import('./features/losses/ClutchLossesPlace') },
        { path: '/seasons', lazy: () => import('./features/seasons/SeasonsPlace') },
        { path: '/labels', lazy: () => import('./features/card/LabelsPlace') },
        { path: '/animals', lazy: () => import('./features/animals/AnimalsPlace') },
        { path: '/animals/new', lazy: () => import('./features/animals/NewAnimalPlace') },
        { path: '/animals/:animal', lazy: () => import('./features/animals/AnimalPlace') },
        { path: '/animals/:animal/correct', lazy: () => import('./features/animals/CorrectPlace') },
        { path: '/lay-day', lazy: () => import('./features/lay-day/LayDayPlace') },
        { path: '/lay-day/:id/:step?', lazy: () => import('./features/lay-day/StepPlace') },
        { path: '/you', lazy: () => import('./features/you/YouPlace') },
        { path: '/settings', lazy: () => import('./features/settings/SettingsPlace') },
        { path: '/settings/:part', lazy: () => import('./features/settings/PartPlace') },
        {
          path: '/settings/methods/:method',
          lazy: () => import('./features/settings/MethodPlace'),
        },
        { path: '/cabinets', lazy: () => import('./features/cabinet/CabinetPlace') },
        { path: '/cabinets/new', lazy: () => import('./features/cabinet/CabinetFormPlace') },
        { path: '/cabinets/:name', lazy: () => import('./features/cabinet/CabinetPlace') },
        {
          path: '/cabinets/:name/correct',
          lazy: () => import('./features/cabinet/CabinetFormPlace'),
        },
        { path: '/readings', lazy: () => import('./features/readings/ReadingsPlace') },
        { path: '/old-records', lazy: () => import('./features/old-records/OldRecordsPlace') },
        { path: '/old-records/:id', lazy: () => import('./features/old-records/CorrectPastPlace') },
        { path: '/shared', lazy: () => import('./features/shared-photos/SharedPlace') },
        { path: '/heard', lazy: () => import('./features/heard/HeardPlace') },
        { path: '/notes', lazy: () => import('./features/notes/NotesPlace') },
        { path: '/bench', lazy: () => import('./features/bench/BenchPlace') },
        { path: '/specimens', lazy: () => import('./features/specimens/SpecimensPlace') },
        { path: '*', element: <Lost /> },
      ],
    },
  ],
  { basename: under('/') },
)
