import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

/** Numbers of the house that a keeper may set. */
export const settingsQuery = queryOptions({
  queryKey: ['settings'],
  queryFn: () => answer(api.GET('/api/settings')),
})

export const forecastScoresQuery = queryOptions({
  queryKey: ['forecast scores'],
  queryFn: () => answer(api.GET('/api/forecast-scores')),
})

export const calendarLinkQuery = queryOptions({
  queryKey: ['calendar link'],
  queryFn: () => answer(api.GET('/api/calendar/link')),
})

export const peopleQuery = queryOptions({
  queryKey: ['people'],
  queryFn: () => answer(api.GET('/api/people')),
})

export const copiesQuery = queryOptions({
  queryKey: ['copies'],
  queryFn: () => answer(api.GET('/api/house/copies')),
})

/** How the last way back to a copy ended; asked again when one is under way or over. */
export const restoreQuery = (underWay: boolean) =>
  queryOptions({
    queryKey: ['restore', underWay],
    queryFn: () => answer(api.GET('/api/house/restore')),
  })

export const houseQuery = queryOptions({
  queryKey: ['house'],
  queryFn: () => answer(api.GET('/api/house')),
})

export const backupsQuery = queryOptions({
  queryKey: ['backups'],
  queryFn: () => answer(api.GET('/api/house/backups')),
})
