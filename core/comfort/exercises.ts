/** A point of a drawn pose: x to the right, y down, in a field of 200 by 120 with the floor at y = 110. */
export type PosePoint = readonly [x: number, y: number]
/** A body in lines; without a head it is a part of one. */
export type Pose = Readonly<{
  head?: PosePoint
  limbs: readonly (readonly PosePoint[])[]
  /** What is not the body: a stick, a saddle, bars. */
  props?: readonly (readonly PosePoint[])[]
}>

/**
 * Something to do off the bike, or a drill that lets a rider feel a cue, as a suggestion and no therapy (common
 * practice, no source; words and drawings are ours).
 */
export type Exercise = Readonly<{
  name: string
  howOften: string
  how: string
  /** As the tables of causes and signs name it. */
  named: string
  kind: 'strength' | 'drill'
  /** Each with where it begins, drawn faintly. */
  drawn: readonly Readonly<{ from?: Pose; to: Pose }>[]
}>

export const EXERCISES: readonly Exercise[] = [
  {
    name: 'Hinge and plank',
    howOften: 'eight hinges and two planks of half a minute, three times a week',
    how: 'Stick along the back touching head, upper back and tailbone; send the hips back. Then hold the body long.',
    named: 'hip hinges with a stick along the back, and half-minute planks, three times a week',
    kind: 'strength',
    drawn: [
      {
        from: {
          head: [70, 20],
          limbs: [
            [
              [70, 34],
              [70, 66],
              [70, 88],
              [70, 108],
              [80, 110],
            ],
          ],
        },
        to: {
          head: [106, 38],
          limbs: [
            [
              [94, 45],
              [56, 66],
              [68, 88],
              [70, 108],
              [80, 110],
            ],
            [
              [92, 48],
              [92, 74],
            ],
          ],
          props: [
            [
              [46, 68],
              [110, 26],
            ],
          ],
        },
      },
      {
        to: {
          head: [40, 72],
          limbs: [
            [
              [54, 78],
              [108, 88],
              [140, 97],
              [172, 106],
              [174, 98],
            ],
            [
              [58, 80],
              [58, 108],
              [36, 108],
            ],
          ],
        },
      },
    ],
  },
  {
    name: 'Leg lifts on the side',
    howOften: 'twelve a side, three times a week',
    how: 'Lie on the side, hips stacked; lift the upper leg a little back, toes ahead, and let it down slowly.',
    named: 'side-lying leg lifts, twelve a side, three times a week',
    kind: 'strength',
    drawn: [
      {
        from: {
          limbs: [
            [
              [94, 96],
              [132, 98],
              [170, 100],
            ],
          ],
        },
        to: {
          head: [24, 90],
          limbs: [
            [
              [38, 96],
              [94, 98],
              [132, 105],
              [170, 107],
            ],
            [
              [94, 96],
              [130, 80],
              [164, 60],
            ],
            [
              [42, 98],
              [26, 107],
            ],
          ],
        },
      },
    ],
  },
  {
    name: 'Turning the upper back',
    howOften: 'ten a side, daily',
    how: 'On all fours, one hand behind the head: elbow toward the other wrist, then up to the ceiling, eyes along.',
    named: 'turning the upper back on all fours, ten a side, daily',
    kind: 'strength',
    drawn: [
      {
        from: {
          limbs: [
            [
              [68, 62],
              [82, 84],
              [58, 70],
            ],
          ],
        },
        to: {
          head: [50, 54],
          limbs: [
            [
              [64, 60],
              [124, 62],
              [124, 106],
              [152, 108],
            ],
            [
              [68, 62],
              [68, 108],
            ],
            [
              [68, 60],
              [80, 30],
              [58, 46],
            ],
          ],
        },
      },
    ],
  },
  {
    name: 'Calf raises and toe lifts',
    howOften: 'ten a side, every other day',
    how: 'Slowly up on the ball of one foot and down again; then lift the toes and let them down one by one.',
    named: 'slow calf raises and toe lifts, ten a side, every other day',
    kind: 'strength',
    drawn: [
      {
        from: {
          head: [80, 24],
          limbs: [
            [
              [80, 38],
              [80, 70],
              [80, 90],
              [78, 109],
              [96, 109],
            ],
          ],
        },
        to: {
          head: [86, 10],
          limbs: [
            [
              [86, 24],
              [86, 56],
              [86, 77],
              [82, 96],
              [97, 108],
            ],
          ],
        },
      },
    ],
  },
  {
    name: 'Kneeling hip stretch',
    howOften: 'half a minute a side, daily',
    how: 'One knee down, trunk tall; tuck the tailbone and move forward as a whole until the front of the hip pulls.',
    named: 'a kneeling hip stretch, half a minute a side, daily',
    kind: 'strength',
    drawn: [
      {
        from: {
          head: [78, 20],
          limbs: [
            [
              [78, 34],
              [78, 68],
              [64, 106],
              [34, 109],
            ],
          ],
        },
        to: {
          head: [92, 22],
          limbs: [
            [
              [92, 36],
              [92, 70],
              [64, 106],
              [34, 109],
            ],
            [
              [92, 70],
              [126, 74],
              [120, 108],
              [136, 109],
            ],
          ],
        },
      },
    ],
  },
  {
    name: 'Toes up, then settle',
    howOften: 'a few times before the music starts',
    how: 'Spread and lift the toes inside the shoe, then let them down: feel heel, outer edge and ball carry.',
    named: 'spread and lift the toes, then settle: feel the whole foot carry',
    kind: 'drill',
    drawn: [
      {
        from: {
          limbs: [
            [
              [136, 100],
              [164, 80],
            ],
          ],
        },
        to: {
          limbs: [
            [
              [74, 20],
              [70, 74],
              [56, 100],
              [136, 102],
              [168, 102],
            ],
          ],
        },
      },
    ],
  },
  {
    name: 'Lean on, sit back',
    howOften: 'twice in the warm-up',
    how: 'Lean forward onto the bars for two turns, then sit back onto the sit bones: feel the load leave the hands.',
    named: 'lean forward onto the bars, then sit back onto the sit bones: feel the load leave the hands',
    kind: 'drill',
    drawn: [
      {
        from: {
          head: [126, 26],
          limbs: [
            [
              [114, 36],
              [68, 60],
            ],
            [
              [112, 38],
              [136, 54],
            ],
          ],
        },
        to: {
          head: [98, 16],
          limbs: [
            [
              [88, 28],
              [56, 62],
              [94, 78],
              [84, 106],
              [98, 108],
            ],
            [
              [86, 32],
              [108, 54],
              [136, 54],
            ],
          ],
          props: [
            [
              [42, 68],
              [72, 66],
            ],
            [
              [132, 58],
              [148, 54],
            ],
          ],
        },
      },
    ],
  },
]

/** The exercise a table names; undefined for other words. */
export const exerciseNamed = (words: string): Exercise | undefined => EXERCISES.find(({ named }) => named === words)
