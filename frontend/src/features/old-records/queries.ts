import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type PastClutch = Schemas['PastClutchResponse']
export type RecordList = Schemas['RecordListResponse']
export type RecordKind = Schemas['RecordKind']
export type Field = Schemas['RecordColumnResponse']['holds']
export type Cells = Partial<Record<Field, string>>
export type Check = Schemas['RecordsCheckResponse']
export type CheckedLine = Schemas['CheckedLineResponse']
/** A line of a list, its place, and what was found. */
export type Line = { place: number; at: string; cells: Cells; checked: CheckedLine }
export type Name = Schemas['NameResponse']
export type NameAnswer = Schemas['NameAnswer']
export type RecordsRequest = {
  kind: RecordKind
  lines: Cells[]
  order?: 'dmy' | 'mdy' | null
  names: NameAnswer[]
  doubles: number[]
}

export const pastClutchesQuery = queryOptions({
  queryKey: ['past-clutches'],
  queryFn: () => answer(api.GET('/api/past-clutches')),
})

export const checkLines = (body: RecordsRequest) =>
  answer(api.POST('/api/old-records/check', { body: body as Schemas['RecordsRequest'] }))

export const storeLines = (body: RecordsRequest) =>
  answer(api.POST('/api/old-records', { body: body as Schemas['RecordsRequest'] }))
