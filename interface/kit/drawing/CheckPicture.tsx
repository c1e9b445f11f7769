import type { CheckName } from '@/core/messages/setups/checks'
import type { LandmarkAtMark } from '@/core/riders/evidence/definition/landmarks'
import styles from './checkPicture.module.css'

/**
 * Our own small picture of a check: the spot, the instructor's place, and what good looks like. Drawn in a 120 × 132
 * box; what is looked at is lit.
 */
export function CheckPicture({ check, landmark }: { check: CheckName; landmark: LandmarkAtMark }) {
  const Picture = PICTURES[check]
  return (
    <svg className={styles.picture} viewBox="0 0 120 132" aria-hidden="true">
      <Picture landmark={landmark} />
    </svg>
  )
}

type PictureProps = Readonly<{ landmark: LandmarkAtMark }>

/** A rider standing beside the bike, seen from the side. */
function Standing({ thighUp = false }: { thighUp?: boolean }) {
  return (
    <g className={styles.body}>
      <circle cx="46" cy="15" r="9" />
      <path d="M46 28v38" strokeWidth="17" />
      {thighUp ? (
        <>
          <path d="M46 70h26" strokeWidth="13" />
          <path d="M72 70v27" strokeWidth="9" />
        </>
      ) : null}
      <path d="M46 68v54" strokeWidth="12" />
      <path d="M40 125h20" strokeWidth="6" />
    </g>
  )
}

const SPOT_Y: Readonly<Record<LandmarkAtMark, number>> = {
  hipCrest: 56,
  frontHipBone: 61,
  between: 63,
  raisedThigh: 63,
  halfThigh: 70,
}

function Landmark({ landmark }: PictureProps) {
  const y = SPOT_Y[landmark]
  const x = landmark === 'frontHipBone' ? 54 : landmark === 'raisedThigh' || landmark === 'halfThigh' ? 62 : 46
  return (
    <g>
      <path className={styles.floor} d="M6 129h108" />
      <Standing thighUp={landmark === 'raisedThigh' || landmark === 'halfThigh'} />
      <path className={styles.bike} d={`M84 ${y + 4}h30q-2 8-13 8h-10q-6-1-7-8ZM99 ${y + 12}V128`} />
      <path className={styles.sight} d={`M14 ${y}h102`} />
      <circle className={styles.spot} cx={x} cy={y} r="5" />
    </g>
  )
}

function Tape() {
  return (
    <g>
      <path className={styles.floor} d="M6 129h108M24 6v123" />
      <Standing />
      <path className={styles.sight} d="M70 70h20M80 70v58M66 6h28M88 6v64" />
      <path className={styles.spotLine} d="M40 70h24" />
    </g>
  )
}

function Limbs() {
  return (
    <g>
      <path className={styles.floor} d="M6 129h108" />
      <Standing />
      <path className={styles.sight} d="M66 68v28M66 96v26M60 68h12M60 96h12M60 122h12" />
      {[68, 96, 121].map((y) => (
        <circle key={y} className={styles.spot} cx="46" cy={y} r="4.5" />
      ))}
    </g>
  )
}

/** A seated leg with the pedal at the bottom: hip, knee, ankle, and the foot on the pedal. */
function Leg({ ankle, toe, lit = true }: { ankle: string; toe: string; lit?: boolean }) {
  return (
    <g>
      <path className={styles.bike} d="M14 40h40q-3 9-16 9H24q-8-2-10-9ZM36 49l14 56" />
      <circle className={styles.ring} cx="52" cy="88" r="26" />
      <g className={styles.body}>
        <path d="M36 32L66 64" strokeWidth="15" />
        <path d={`M66 64L${ankle}`} strokeWidth="10" />
        <path d={`M${ankle}L${toe}`} strokeWidth="7" />
      </g>
      {lit && (
        <>
          <path className={styles.sight} d={`M36 32L66 64L${ankle}`} />
          <path className={styles.sight} d="M66 64l18 19" />
        </>
      )}
    </g>
  )
}

function Knee() {
  return (
    <g>
      <Leg ankle="60 108" toe="74 116" />
      {[
        [36, 32],
        [66, 64],
        [60, 108],
      ].map(([x, y]) => (
        <circle key={y} className={styles.spot} cx={x} cy={y} r="4.5" />
      ))}
    </g>
  )
}

const KneeEye = () => (
  <g>
    <Leg ankle="60 108" toe="74 116" lit={false} />
    <path className={styles.sight} d="M112 58q-12-8-22 6 10 14 22 6" />
    <circle className={styles.spot} cx="104" cy="64" r="3" />
    <circle className={styles.spot} cx="66" cy="64" r="5" />
  </g>
)

const Heel = () => (
  <g>
    <path className={styles.bike} d="M14 34h40q-3 9-16 9H24q-8-2-10-9ZM36 43l14 60" />
    <circle className={styles.ring} cx="52" cy="88" r="26" />
    <g className={styles.body}>
      <path d="M36 26L62 112" strokeWidth="12" />
      <path d="M60 114h24" strokeWidth="8" />
    </g>
    <path className={styles.sight} d="M36 26L62 112" />
    <path className={styles.spotLine} d="M50 119h24" />
    <circle className={styles.spot} cx="62" cy="113" r="4.5" />
  </g>
)

const Foot = () => (
  <g>
    <path className={styles.floor} d="M16 104h92" />
    <g className={styles.body}>
      <path d="M58 18L48 78" strokeWidth="16" />
      <path d="M44 82L92 102" strokeWidth="14" />
    </g>
    <path className={styles.sight} d="M92 108L34 84M92 108H30" />
    <circle className={styles.spot} cx="84" cy="106" r="5" />
  </g>
)

const Behind = () => (
  <g>
    <path className={styles.bike} d="M44 62h32q-2 8-16 8t-16-8ZM60 70v56" />
    <g className={styles.body}>
      <circle cx="60" cy="14" r="9" />
      <path d="M60 26v26" strokeWidth="26" />
      <path d="M50 60l-8 56" strokeWidth="12" />
      <path d="M70 60l6 34" strokeWidth="12" />
    </g>
    <path className={styles.sight} d="M22 56h76" />
    <circle className={styles.spot} cx="44" cy="56" r="4.5" />
    <circle className={styles.spot} cx="76" cy="56" r="4.5" />
  </g>
)

function Crank({ string }: { string: boolean }) {
  return (
    <g>
      <path className={styles.bike} d="M8 40h36q-3 9-14 9H18q-8-2-10-9ZM28 49l10 50" />
      <circle className={styles.ring} cx="42" cy="96" r="26" />
      <path className={styles.bike} d="M16 96h56" />
      <g className={styles.body}>
        <path d="M28 34L74 42" strokeWidth="15" />
        <path d="M74 42L58 84" strokeWidth="10" />
        <path d="M58 84L78 92" strokeWidth="7" />
      </g>
      {string ? (
        <>
          <path className={styles.sight} d="M80 42v64" />
          <path className={styles.spotFill} d="M75 106h10l-5 12Z" />
        </>
      ) : (
        <path className={styles.sight} d="M112 36q-12-8-20 6 8 14 20 6" />
      )}
      <circle className={styles.spot} cx="72" cy="96" r="4.5" />
    </g>
  )
}

/** A rider on the bars: hip, trunk, arm. */
function OnBars({ elbow, children }: { elbow: string; children: React.ReactNode }) {
  return (
    <g>
      <path className={styles.bike} d="M6 84h34q-3 8-13 8H16q-8-1-10-8ZM94 66l10-6M98 64l6 60" />
      <g className={styles.body}>
        <circle cx="68" cy="20" r="9" />
        <path d="M26 76L56 36" strokeWidth="19" />
        <path d="M26 78l34 20" strokeWidth="14" />
        <path d={`M56 38L${elbow}L98 64`} strokeWidth="8" />
      </g>
      {children}
    </g>
  )
}

const Elbows = () => (
  <OnBars elbow="78 58">
    <circle className={styles.spot} cx="78" cy="58" r="5" />
  </OnBars>
)

const Feel = () => (
  <OnBars elbow="78 58">
    <path className={styles.sight} d="M26 76L98 64" />
    <path className={styles.spotLine} d="M34 70l-6 5 6 5M90 60l7 4-5 6" />
  </OnBars>
)

const Trunk = () => (
  <OnBars elbow="78 58">
    <path className={styles.sight} d="M26 76h46M26 76L60 30" />
    <path className={styles.spotLine} d="M46 76a20 20 0 0 0-8-16" />
  </OnBars>
)

const Wish = () => (
  <g>
    <path className={styles.bike} d="M6 88h34q-3 8-13 8H16q-8-1-10-8ZM98 128V44" />
    <path className={styles.sight} d="M26 80L44 34L98 50M26 80L66 52L98 84" />
    <g className={styles.body}>
      <path d="M26 80L56 42" strokeWidth="17" />
      <circle cx="66" cy="26" r="9" />
    </g>
    {[50, 67, 84].map((y) => (
      <circle key={y} className={styles.spot} cx="98" cy={y} r="4.5" />
    ))}
  </g>
)

const Clearance = () => (
  <g>
    <path className={styles.bike} d="M6 76h34q-3 8-13 8H16q-8-1-10-8ZM92 52l12-5M98 50v76" />
    <g className={styles.body}>
      <circle cx="70" cy="12" r="8" />
      <path d="M44 58L60 24" strokeWidth="17" />
      <path d="M44 60L74 74" strokeWidth="13" />
      <path d="M74 74l-12 30" strokeWidth="9" />
      <path d="M60 28L94 50" strokeWidth="7" />
    </g>
    <path className={styles.spotLine} d="M82 72h10M85 68l-4 4 4 4M89 68l4 4-4 4" />
    <circle className={styles.spot} cx="76" cy="74" r="4.5" />
  </g>
)

const Forearm = () => (
  <g>
    <path className={styles.bike} d="M4 72h46q-4 10-18 10H16q-10-2-12-10ZM104 46v80M96 50l14-8" />
    <g className={styles.body}>
      <path d="M38 20L52 66" strokeWidth="11" />
      <path d="M52 66L86 60" strokeWidth="9" />
    </g>
    <path className={styles.sight} d="M52 66H102" />
    <circle className={styles.spot} cx="52" cy="66" r="4.5" />
    <circle className={styles.spot} cx="101" cy="52" r="4.5" />
  </g>
)

const Rider = () => (
  <g>
    <path className={styles.floor} d="M6 129h108" />
    <Standing />
    <path className={styles.sight} d="M66 14h44v26H84l-10 9v-9h-8Z" />
    <path className={styles.spotLine} d="M74 24h28M74 32h18" />
  </g>
)

const Build = () => (
  <g>
    <path className={styles.floor} d="M6 129h108" />
    <Standing />
    <path className={styles.sight} d="M70 26h16M70 68h16M78 26v42M70 126h16M78 68v58" />
    <circle className={styles.spot} cx="46" cy="68" r="4.5" />
  </g>
)

const PICTURES: Readonly<Record<CheckName, (props: PictureProps) => React.ReactNode>> = {
  recheck: Rider,
  rider: Rider,
  build: Build,
  school: Build,
  landmark: Landmark,
  tape: Tape,
  limbs: Limbs,
  kneeByEye: KneeEye,
  kneeAngle: Knee,
  gauge: Knee,
  heelCheck: Heel,
  rocking: Behind,
  footPitch: Foot,
  plumb: () => <Crank string />,
  plumbByEye: () => <Crank string={false} />,
  wish: Wish,
  elbows: Elbows,
  reachFeel: Feel,
  clearance: Clearance,
  trunkAngle: Trunk,
  forearmGauge: Forearm,
}
