/** A move taught on the bike, its right form and what is offered to whom it is too much (common practice). */
export type Move = Readonly<{ move: string; name: string; form: string; gentler: string }>

export const MOVES: readonly Move[] = Object.freeze([
  {
    move: 'climbSeated',
    name: 'Seated climb',
    form: 'Load up, legs slow on the beat; weight on both sit bones, hands light.',
    gentler: 'Less load, ten turns a minute faster.',
  },
  {
    move: 'climbStanding',
    name: 'Standing climb',
    form: 'Hips over the pedals, hands only steady the body, load enough that nothing bounces.',
    gentler: 'Stay seated with a little less load.',
  },
  {
    move: 'pressUps',
    name: 'Small press-ups',
    form: 'Legs unchanged; elbows soft, lowering as the leading leg straightens.',
    gentler: 'Only bend and straighten the elbows a hand’s width, seated tall.',
  },
  {
    move: 'hipsBack',
    name: 'Hips back on the beat',
    form: 'From standing the hips travel back and come home in time; the back stays long, knees do not lock.',
    gentler: 'Sit, and tip forward and back from the hips.',
  },
  {
    move: 'standAndSit',
    name: 'Up for eight, down for eight',
    form: 'Load first; stand without pulling on the bars, sit down without dropping.',
    gentler: 'Up once a minute, as long as it feels light.',
  },
  {
    move: 'fastLegs',
    name: 'Fast legs',
    form: 'A little load, then legs; the saddle stays quiet under you.',
    gentler: 'Ten turns a minute slower, until nothing bounces.',
  },
  {
    move: 'sitUp',
    name: 'Sit up and breathe',
    form: 'Hands off or light, a few easy turns, shoulders let go.',
    gentler: 'The same, for as long as one likes.',
  },
])
export const moveNamed = (move: string | undefined): Move | undefined => MOVES.find((one) => one.move === move)
