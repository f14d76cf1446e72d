import Dexie, { type Table } from 'dexie'
import type { Schemas } from '../api/client'
import type { Conflict, OpenBox, QueuedPhoto, QueuedVisit } from './visit'

/** What a learner said of an egg of practice, until its truth can be asked for. */
export type KeptJudgement = {
  session: string
  egg: number
  said: Schemas['JudgementRequest']
}

class DeviceStore extends Dexie {
  visits!: Table<QueuedVisit, number>
  photos!: Table<QueuedPhoto, number>
  conflicts!: Table<Conflict, number>
  openBoxes!: Table<OpenBox<unknown>, string>
  judgements!: Table<KeptJudgement, [string, number]>

  constructor() {
    super('sandboa')
    this.version(1).stores({
      visits: '++id',
      photos: '++id',
      conflicts: '++id',
      openBoxes: 'code',
    })
    this.version(2).stores({ judgements: '[session+egg], session' })
  }
}

/** What this device keeps until the house has it. */
export const store = new DeviceStore()
