/** What a place is for, and what one has to know to trust what it says. */
export type Help = {
  about: string
  lines: string[]
  /** Moments of the core's cautions that belong here. */
  cautions?: string[]
}

/** By the address of the place. */
export const HELP: Record<string, Help> = {
  '/': {
    about: 'What needs you now, and why; the gravest first.',
    lines: [
      'Boxes stand under their cabinet and shelf, so that each door is opened once.',
      'Later puts a reason off. It comes back by itself.',
      'Red is what cannot wait; what is only to be known stands below it.',
    ],
  },
  '/round': {
    about: 'The boxes to open, in the order that keeps doors shut.',
    lines: [
      'Tap a box when you open it, say what you see, shut it. Its grams are worked out as you type what it weighs.',
      'Rest as before says that every egg you did not touch looked as it did at the last visit.',
      'What you tap stays on this device until the house has it. Two people share a round by cabinets.',
    ],
    cautions: ['hands on eggs', 'mould'],
  },
  '/hatch': {
    about: 'From the last week before the first pip to the first meals.',
    lines: [
      'A window holds 8 of 10 clutches: one in ten comes before it, one in ten after.',
      'Once one has pipped, it counts how long the others have been closed since.',
      'It never tells you to cut. It says what your method allows from when, and what speaks for waiting.',
    ],
    cautions: ['blades', 'at the pip'],
  },
  '/lay-day': {
    about: 'Step by step from the dam on her eggs to the closed box.',
    lines: [
      'Leave at any step: it goes on where you were, on any device.',
      'Mark the top of each egg before it is moved.',
      'An egg whose disc lies underneath is turned once, within a day of laying, and never after.',
    ],
    cautions: ['moving the dam'],
  },
  '/cabinets': {
    about: 'What each cabinet did, probe by probe, and what went wrong in it.',
    lines: [
      'A probe counts by its checks: an ice or a salt test moves its readings from that day on.',
      'Where nothing measured, the set point stands in, moved by what was usual. It is said where.',
      'Faults are told from the readings; each says what it cost the eggs in days.',
    ],
    cautions: ['mains and water'],
  },
  '/animals': {
    about: 'Dams and sires: who pairs, who lays when, who needs somebody.',
    lines: [
      'When she lays follows from the last sign you saw; with intervals of your own house it grows narrower.',
      'What a pair may bring is worked out from the traits on your list, and from what hatched.',
      'Retired and departed animals keep their records. Choose several retires many at once.',
    ],
  },
  '/losses': {
    about: 'Every egg that was lost, and what most likely took it.',
    lines: [
      'The shares of causes are chances, by what was noted and what was not.',
      'Open the egg and write down what you see: that settles most.',
      'Slugs are no losses: nothing was there to lose.',
    ],
    cautions: ['opening a lost egg'],
  },
  '/seasons': {
    about: 'What the seasons taught, each sentence with the number it rests on.',
    lines: [
      'Every rate has an interval. With few eggs it is wide, and nothing is concluded from it.',
      'All else as usual is what remains of a difference when dams, cabinets and years are alike.',
      'Two things that always came together cannot be told apart; it is said of which.',
    ],
  },
  '/notes': {
    about: 'What fits nowhere else, written on anything and found by its words.',
    lines: ['Write a note on the page of what it is about. A note can have photos.'],
  },
  '/bench': {
    about: 'Try things out; nothing here is recorded.',
    lines: [
      'A forecast from a lay date and a set point, or from a logger\u2019s file.',
      'Water for a medium, and what to pour into a box that weighs so much.',
    ],
  },
  '/practice': {
    about: 'Judge eggs that cannot die: simulated ones, whose truth is told afterwards.',
    lines: [
      'Say how likely an egg lives, whether it looks as it should, and what you would do next.',
      'What you misjudged comes back on another day, as another egg of its kind.',
      'Nothing here is recorded in the house. It is a simulation, and yours alone.',
    ],
  },
  '/settings': {
    about: 'How the house is run, and what it judges by.',
    lines: [
      'A number you change holds for the whole house from then on, and for what is judged anew.',
      'Each number says where it comes from: a paper, keeper practice, or our assumption.',
    ],
  },
}
