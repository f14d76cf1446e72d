import Dexie, { type Table } from 'dexie'
import type { Conflict, OpenBox, QueuedPhoto, QueuedVisit } from './visit'

class DeviceStore extends Dexie {
  visits!: Table<QueuedVisit, number>
  photos!: Table<QueuedPhoto, number>
  conflicts!: Table<Conflict, number>
  openBoxes!: Table<OpenBox<unknown>, string>

  constructor() {
    super('sandboa')
    this.version(1).stores({
      visits: '++id',
      photos: '++id',
      conflicts: '++id',
      openBoxes: 'code',
    })
  }
}

/** What this device keeps until the house has it. */
export const store = new DeviceStore()
