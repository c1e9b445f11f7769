/** What a new studio does in its first hour, in this order; each may be left for later. */
export const FIRST_HOUR_STEPS = ['bikes', 'rider', 'tape', 'room', 'members', 'people', 'timetable', 'school'] as const
export type FirstHourStep = (typeof FIRST_HOUR_STEPS)[number]

/** Each step: what it is, what it is good for, and where it is done. */
export const FIRST_HOUR_TEXT: Readonly<
  Record<FirstHourStep, Readonly<{ name: string; hint: string; href: string; open: string }>>
> = Object.freeze({
  bikes: {
    name: 'The bikes',
    hint: 'A common pattern of marks with lengths “about” will do: what is advised says itself how sure it is.',
    href: '/bikes',
    open: 'Open the bikes',
  },
  rider: {
    name: 'A first rider',
    hint: 'A name, then measured and set up at the bike.',
    href: '/members',
    open: 'Open the members',
  },
  tape: {
    name: 'The tape',
    hint: 'Five settings and ten minutes a type: from then on its lengths are known, not guessed.',
    href: '/bikes',
    open: 'Open the bikes',
  },
  room: {
    name: 'The room',
    hint: 'Where which bike stands, so that a class is seen as the instructor sees it.',
    href: '/rooms',
    open: 'Lay out the room',
  },
  members: {
    name: 'The members',
    hint: 'A list from any spreadsheet, looked over before it is taken.',
    href: '/studio/files',
    open: 'Import a list',
  },
  people: {
    name: 'The people',
    hint: 'A link for each instructor and for the desk; they choose their own password.',
    href: '/studio/people',
    open: 'Invite somebody',
  },
  timetable: {
    name: 'The timetable',
    hint: 'Classes one by one, from a calendar, or from a list.',
    href: '/class',
    open: 'Open the timetable',
  },
  school: {
    name: 'How you set up',
    hint: 'Where practitioners disagree, the studio says what it goes by.',
    href: '/studio',
    open: 'Look it over',
  },
})
