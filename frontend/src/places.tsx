import { type ComponentType, lazy } from 'react'
import { BrowserRouter, Route, Routes, useLocation } from 'react-router'
import { Component as Today } from './features/today/TodayPlace'
import { Frame } from './frame/Frame'
import { under } from './shared/api/under'
import { Lost } from './shared/ui/Lost'

/** A place loads its own script when it is first opened; where that failed, when it is next come to. */
function place(fetched: () => Promise<{ Component: ComponentType }>): ComponentType {
  let shownAt = ''
  let failedAt: string | null = null
  const load = async () => {
    try {
      return { default: (await fetched()).Component }
    } catch (error) {
      failedAt = shownAt
      throw error
    }
  }
  let Fetched = lazy(load)
  return function Place() {
    const { key } = useLocation()
    shownAt = key
    if (failedAt !== null && failedAt !== key) {
      failedAt = null
      Fetched = lazy(load)
    }
    return <Fetched />
  }
}

const CabinetPlace = place(() => import('./features/cabinet/CabinetPlace'))
const CabinetFormPlace = place(() => import('./features/cabinet/CabinetFormPlace'))
const PLACES: [path: string, Place: ComponentType][] = [
  // Opened more than all others: it comes with the frame, in the same files.
  ['/', Today],
  ['/clutches/:code', place(() => import('./features/clutch/ClutchPlace'))],
  ['/clutches/:code/eggs/:number', place(() => import('./features/egg/EggPlace'))],
  ['/round', place(() => import('./features/round/RoundPlace'))],
  ['/round/:box', place(() => import('./features/round/BoxPlace'))],
  ['/visits/:visit', place(() => import('./features/round/CorrectVisitPlace'))],
  ['/clutches/:code/correct', place(() => import('./features/lay-day/correct/CorrectPlace'))],
  ['/clutches/:code/card', place(() => import('./features/card/CardPlace'))],
  ['/hatch', place(() => import('./features/hatch/HatchPlace'))],
  ['/hatch/:code', place(() => import('./features/hatch/ClutchHatchPlace'))],
  ['/hatchlings', place(() => import('./features/hatchlings/HatchlingsPlace'))],
  ['/hatchlings/:hatchling', place(() => import('./features/hatchlings/HatchlingPlace'))],
  ['/losses', place(() => import('./features/losses/LossesPlace'))],
  ['/losses/:code', place(() => import('./features/losses/ClutchLossesPlace'))],
  ['/seasons', place(() => import('./features/seasons/SeasonsPlace'))],
  ['/labels', place(() => import('./features/card/LabelsPlace'))],
  ['/animals', place(() => import('./features/animals/AnimalsPlace'))],
  ['/animals/new', place(() => import('./features/animals/NewAnimalPlace'))],
  ['/animals/:animal', place(() => import('./features/animals/AnimalPlace'))],
  ['/animals/:animal/correct', place(() => import('./features/animals/CorrectPlace'))],
  ['/lay-day', place(() => import('./features/lay-day/LayDayPlace'))],
  ['/lay-day/:id/:step?', place(() => import('./features/lay-day/StepPlace'))],
  ['/you', place(() => import('./features/you/YouPlace'))],
  ['/settings', place(() => import('./features/settings/SettingsPlace'))],
  ['/settings/:part', place(() => import('./features/settings/PartPlace'))],
  ['/settings/methods/:method', place(() => import('./features/settings/MethodPlace'))],
  ['/cabinets', CabinetPlace],
  ['/cabinets/new', CabinetFormPlace],
  ['/cabinets/:name', CabinetPlace],
  ['/cabinets/:name/correct', CabinetFormPlace],
  ['/readings', place(() => import('./features/readings/ReadingsPlace'))],
  ['/old-records', place(() => import('./features/old-records/OldRecordsPlace'))],
  ['/old-records/:id', place(() => import('./features/old-records/CorrectPastPlace'))],
  ['/shared', place(() => import('./features/shared-photos/SharedPlace'))],
  ['/heard', place(() => import('./features/heard/HeardPlace'))],
  ['/notes', place(() => import('./features/notes/NotesPlace'))],
  ['/wall', place(() => import('./features/wall/WallPlace'))],
  ['/bench', place(() => import('./features/bench/BenchPlace'))],
  ['/practice', place(() => import('./features/practice/PracticePlace'))],
  ['/practice/looks/:id', place(() => import('./features/practice/looks/LookPlace'))],
  ['/practice/seasons/:id', place(() => import('./features/practice/season/SeasonPlace'))],
  ['/specimens', place(() => import('./features/specimens/SpecimensPlace'))],
]

/** The places of the product that are built. */
export function Places() {
  return (
    <BrowserRouter basename={under('/')}>
      <Routes>
        <Route element={<Frame />}>
          {PLACES.map(([path, Place]) => (
            <Route key={path} path={path} element={<Place />} />
          ))}
          <Route path="*" element={<Lost />} />
        </Route>
      </Routes>
    </BrowserRouter>
  )
}
