import type { Schemas } from '@/shared/api/client'

/** A box 46 g short, as the round reads it. Tests only. */
export const dryingBox = {
  id: 4,
  name: '26-04',
  kind: 'incubation',
  clutches: [{ id: 1, code: '26-04', dam: 'Yarrow', day: 26, fraction: 0.43 }],
  seen_act: 1,
  cabinet: 'North',
  shelf: 'lower',
  on_grid: true,
  box_c: 31.3,
  eggs: [],
  heaviest_g: 1188,
  last_visit_at: '2026-06-07T12:00:00Z',
  visited: true,
  top_ups: [{ from_g: 0, add_g: 45, today_g: 45, split: false }],
  box_water: {
    closing: 'film with a cracked corner',
    medium: 'saturated perlite',
    reference_g: 1180,
    last_weighed_g: 1134,
    add: { deficit_g: 46, add_g: 45, today_g: 45, split: false, left_out_g: 0 },
    left: { share: 0.54, share_low: 0.51, share_high: 0.56, weighings: 4 },
  },
} as unknown as Schemas['RoundBoxResponse']

/** The round it is part of. Tests only. */
export const dryingRound = {
  as_of: '2026-06-14T12:00:00Z',
  boxes: [dryingBox],
  shelves: [{ cabinet: 'North', shelf: 'lower' }],
} as unknown as Schemas['RoundResponse']
