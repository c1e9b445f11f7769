import type { Cause } from '../comfort/model/causeTable'
import type { Complaint, ExplainRequest, Finding } from '../comfort/model/request'

/** A written case: what is felt and found, and the cause that leads, or that the rider is sent on. */
export type ComplaintCase = Readonly<{
  request: ExplainRequest
  expected: Cause | 'refer'
  source: string
}>

const PRACTICE = 'common practice, no source'
const HOLMES = 'Holmes, Pruitt & Whalen 1994, Clin Sports Med 13(1) 187–205 (from memory)'
const ASPLUND = 'Asplund & St Pierre 2004, Phys Sportsmed 32(4) 23–30 (from memory)'
const BINI = 'Bini, Hume & Croft 2011, Sports Med 41(6) 463–476 (from memory)'
const SALAI = 'Salai et al. 1999, Br J Sports Med 33 398–400 (from memory)'
const MARSDEN = 'Marsden & Schwellnus 2010, Int SportMed J 11(1) 216–225 (from memory)'
const MELLION = 'Mellion 1994, Clin Sports Med 13(1) 137–164 (from memory)'
const PATTERSON = 'Patterson, Jaggars & Boyer 2003, Am J Sports Med 31(4) 585–589 (from memory)'
const LEIBOVITCH = 'Leibovitch & Mor 2005, Eur Urol 47(3) 277–286 (from memory)'

type Extra = Partial<Omit<Complaint, 'what'>> & Pick<ExplainRequest, 'health' | 'experience'>

const one = (
  what: Complaint['what'],
  { health, experience, ...extra }: Extra,
  findings: readonly Finding[],
  expected: ComplaintCase['expected'],
  source = PRACTICE,
): ComplaintCase => ({
  request: {
    complaints: [{ what, strength: 5, ...extra }],
    findings: [...findings],
    ...(health && { health }),
    ...(experience && { experience }),
  },
  expected,
  source,
})

const knee = (deg: number): Finding => ({ kind: 'kneeAngle', deg })
const plumb = (mm: number): Finding => ({ kind: 'plumb', mm })
const tilt = (deg: number): Finding => ({ kind: 'tilt', deg, shape: 'flat' })
const bars = (mm: number): Finding => ({ kind: 'barsAgainstSaddle', mm })
const elbows = (seen: 'locked' | 'soft' | 'cramped'): Finding => ({ kind: 'elbows', seen })
const rocks = (seen: 'level' | 'both' | 'left' | 'right'): Finding => ({ kind: 'rocking', seen })
const saw = (region: string, what: string, side?: 'left' | 'right' | 'both'): Finding => ({
  kind: 'seen',
  region,
  what,
  ...(side && { side }),
})
const heavy: Finding = { kind: 'cadence', rpm: 62, load: 'heavy' }
const view = (deg: number): Finding => ({ kind: 'viewAngle', deg })
const changed = (what: 'shoes' | 'bike' | 'saddle' | 'numbers' | 'cleats', daysAgo: number): Finding => ({
  kind: 'changed',
  what,
  daysAgo,
})

/** Three or more for each complaint. */
export const COMPLAINT_CASES: readonly ComplaintCase[] = [
  one('frontKnee', { side: 'both' }, [knee(42)], 'saddleTooLow', HOLMES),
  one('frontKnee', {}, [knee(30), plumb(35), saw('knees', 'ahead of the toes')], 'saddleTooFarForward', ASPLUND),
  one('frontKnee', { when: 'hardEfforts' }, [knee(30), plumb(3), heavy], 'heavyLoad', ASPLUND),
  one('frontKnee', { side: 'left' }, [], 'saddleTooLow', BINI),
  one('topOfKnee', {}, [knee(40), saw('knees', 'deep bend at the bottom')], 'saddleTooLow', HOLMES),
  one('topOfKnee', {}, [knee(29), plumb(-32)], 'saddleTooFarBack'),
  one('topOfKnee', {}, [knee(31), plumb(0), rocks('level')], 'tightHips'),
  one('hipPinch', {}, [knee(44)], 'saddleTooLow'),
  one('hipPinch', {}, [knee(28), plumb(-40)], 'saddleTooFarBack'),
  one('hipPinch', { when: 'after' }, [knee(30), plumb(2), bars(30)], 'tightHips'),
  one('outerKnee', { side: 'right' }, [knee(18), rocks('both')], 'saddleTooHigh', HOLMES),
  one('outerKnee', { side: 'left' }, [knee(30), saw('feet', 'turned out', 'left')], 'footPlacement', HOLMES),
  one('outerKnee', { side: 'left' }, [knee(30), rocks('level'), changed('cleats', 4)], 'strapOrCleat', HOLMES),
  one('outerKnee', { side: 'right' }, [knee(30), saw('hips', 'sitting to one side', 'right')], 'offCentre'),
  one('backOfKnee', {}, [knee(17)], 'saddleTooHigh', HOLMES),
  one('backOfKnee', {}, [saw('feet', 'toes pointing down'), saw('hips', 'rocking')], 'saddleTooHigh', HOLMES),
  one('backOfKnee', {}, [knee(29), plumb(-36)], 'saddleTooFarBack', HOLMES),
  one('lowBack', {}, [elbows('locked'), knee(30), bars(15)], 'barsTooFar', MARSDEN),
  one('lowBack', {}, [bars(-60), elbows('soft'), knee(30)], 'barsTooLow', MELLION),
  one('lowBack', {}, [knee(16), rocks('both'), elbows('soft')], 'saddleTooHigh', MELLION),
  one('lowBack', {}, [tilt(5), knee(30), elbows('soft'), bars(20)], 'noseUp', SALAI),
  one('neck', {}, [bars(-70), saw('head', 'craned up')], 'barsTooLow', MELLION),
  one('neck', { side: 'left' }, [view(50), saw('head', 'turned', 'right'), bars(20), elbows('soft')], 'viewingAngle'),
  one('neck', {}, [elbows('locked'), bars(20)], 'barsTooFar', MELLION),
  one('neck', {}, [saw('spine', 'rounded'), saw('head', 'hanging'), bars(20), elbows('soft')], 'roundedSpine', MELLION),
  one('shoulders', {}, [bars(-60)], 'barsTooLow', MELLION),
  one('shoulders', {}, [elbows('locked'), bars(25)], 'barsTooFar'),
  one(
    'shoulders',
    {},
    [saw('shoulders', 'shrugged'), saw('hands', 'hard grip'), bars(20), elbows('soft')],
    'handHabit',
  ),
  one('hands', {}, [tilt(-7)], 'noseDown'),
  one('hands', {}, [tilt(-1), plumb(35)], 'saddleTooFarForward'),
  one('hands', {}, [tilt(-1), plumb(0), bars(20), saw('hands', 'hands never move')], 'handHabit', PATTERSON),
  one('hands', {}, [tilt(-1), plumb(0), bars(-65)], 'barsTooLow', PATTERSON),
  one('wrist', {}, [saw('hands', 'wrist bent')], 'handHabit'),
  one('wrist', {}, [tilt(-6), saw('hips', 'sliding forward')], 'noseDown'),
  one('wrist', {}, [bars(-70), tilt(-1), saw('shoulders', 'collapsed onto the bars')], 'barsTooLow'),
  one('saddlePressure', {}, [knee(18), rocks('both')], 'saddleTooHigh'),
  one('saddlePressure', {}, [elbows('locked'), knee(30), rocks('level')], 'barsTooFar'),
  one('saddlePressure', {}, [tilt(4), knee(30), rocks('level'), elbows('soft')], 'noseUp', LEIBOVITCH),
  one(
    'saddlePressure',
    {},
    [changed('saddle', 6), knee(30), rocks('level'), elbows('soft'), tilt(-1)],
    'saddleShape',
    LEIBOVITCH,
  ),
  one('chafing', {}, [plumb(30)], 'saddleTooFarForward'),
  one('chafing', {}, [plumb(0), knee(30)], 'kit'),
  one('chafing', {}, [plumb(0), changed('saddle', 10)], 'saddleShape'),
  one('oneSidedSoreness', { side: 'left' }, [], 'saddleTwisted'),
  one('oneSidedSoreness', { side: 'left' }, [view(60), saw('head', 'turned', 'right')], 'viewingAngle'),
  one('oneSidedSoreness', { side: 'right' }, [saw('hips', 'sitting to one side', 'right'), view(5)], 'offCentre'),
  one('slidingForward', {}, [tilt(-8)], 'noseDown'),
  one('slidingForward', {}, [tilt(-1), elbows('locked')], 'barsTooFar'),
  one('slidingForward', {}, [tilt(-1), elbows('soft'), knee(16), rocks('both')], 'saddleTooHigh'),
  one('frontThighs', {}, [tilt(-7), saw('hips', 'sliding forward')], 'noseDown'),
  one('frontThighs', {}, [tilt(-1), elbows('locked')], 'barsTooFar'),
  one('frontThighs', {}, [tilt(-1), elbows('soft'), knee(42)], 'saddleTooLow', BINI),
  one('keepsMovingBack', {}, [plumb(-30)], 'saddleTooFarBack'),
  one('keepsMovingBack', {}, [saw('hips', 'keeps moving back')], 'saddleTooFarBack'),
  one('keepsMovingBack', {}, [plumb(0), tilt(-1)], 'saddleShape'),
  one('cramped', {}, [elbows('cramped'), plumb(0)], 'barsTooNear'),
  one('cramped', {}, [plumb(34)], 'saddleTooFarForward'),
  one('cramped', {}, [knee(46), plumb(0), elbows('soft')], 'saddleTooLow'),
  one('stretched', {}, [elbows('locked'), plumb(0)], 'barsTooFar'),
  one('stretched', {}, [plumb(-35), elbows('soft')], 'saddleTooFarBack'),
  one('stretched', { experience: 'new' }, [plumb(0), elbows('soft')], 'newIndoors'),
  one('feet', { side: 'left' }, [saw('feet', 'arch instead of ball on the pedal', 'left')], 'footPlacement'),
  one('feet', { side: 'right' }, [changed('cleats', 3), saw('feet', 'strap loose', 'right')], 'strapOrCleat'),
  one('feet', {}, [heavy], 'heavyLoad'),
  one('feet', {}, [], 'footPlacement'),
  one('kneesMeetBars', {}, [elbows('cramped')], 'barsTooNear'),
  one('kneesMeetBars', {}, [bars(-50)], 'barsTooLow'),
  one('kneesMeetBars', { when: 'standing' }, [elbows('cramped'), bars(20)], 'barsTooNear'),

  one('chest', {}, [knee(42)], 'refer'),
  one('chest', { strength: 1, when: 'hardEfforts' }, [], 'refer'),
  one('chest', { health: ['heart'] }, [], 'refer'),
  one('breath', {}, [], 'refer'),
  one('breath', { health: ['pregnant'] }, [], 'refer'),
  one('breath', { strength: 2 }, [bars(-60)], 'refer'),
  one('faint', {}, [], 'refer'),
  one('faint', { when: 'standing' }, [], 'refer'),
  one('faint', { strength: 1, health: ['heart'] }, [heavy], 'refer'),
  one('calfSwelling', {}, [], 'refer'),
  one('calfSwelling', { side: 'left' }, [knee(15)], 'refer'),
  one('calfSwelling', { health: ['pregnant'] }, [], 'refer'),
  one('abdomen', { health: ['pregnant'] }, [], 'refer'),
  one('abdomen', {}, [bars(-60)], 'refer'),
  one('abdomen', { health: ['recentOperation'] }, [], 'refer'),
  one('frontKnee', { quality: ['sharp'] }, [knee(42)], 'refer'),
  one('frontKnee', { quality: ['givingWay'] }, [], 'refer'),
  one('outerKnee', { side: 'left', lasts: true }, [knee(18)], 'refer'),
  one('outerKnee', { side: 'left', quality: ['growing'] }, [], 'refer'),
  one('backOfKnee', { quality: ['swelling'] }, [knee(16)], 'refer'),
  one('hands', { lasts: true }, [tilt(-8)], 'refer', PATTERSON),
  one('saddlePressure', { lasts: true }, [tilt(5)], 'refer', LEIBOVITCH),
  one('saddlePressure', { health: ['pregnant'] }, [], 'refer'),
  one('lowBack', { quality: ['night'] }, [bars(-60)], 'refer', MARSDEN),
  one('hipPinch', { health: ['recentOperation'] }, [knee(44)], 'refer'),
]
