'use client'
import { DownloadOutlined } from '@ant-design/icons'
import { Button, Modal } from 'antd'
import { useRef, type ReactNode } from 'react'
import type { RecommendRequest } from '@/core/setups/recommend/request/request'
import { BikeDrawing } from '../../kit/drawing/BikeDrawing'
import { ScalesDrawing } from '../../kit/scale/ScaleStrip'
import { SideView } from '../../kit/drawing/SideView'
import { saveSvg } from '../../kit/drawing/svgFile'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { useRecommendation } from '../../compute/useRecommendation'
import type { NumbersOnType } from './Changed'
import styles from './drawings.module.css'

type Props = Readonly<{
  name: string
  numbers: NumbersOnType
  /** Evidence of the rider's body, where the user may see it. */
  request: RecommendRequest | null
  close: () => void
}>

/** The bike at these numbers from the side, with the rider on it where estimated, and its scales: each a file. */
export function Drawings({ name, numbers, request, close }: Props) {
  return (
    <Modal open onCancel={close} footer={null} width={920} title={`${name}, ${numbers.name}`}>
      <div className={styles.drawings}>
        <Drawing title="Side view" file={`${name} side view`}>
          {request ? <Ridden numbers={numbers} request={request} /> : <Bare numbers={numbers} />}
        </Drawing>
        <Drawing title="Scales" file={`${name} scales`}>
          <ScalesDrawing bikeType={numbers.bikeType} marks={numbers.marks} />
        </Drawing>
      </div>
    </Modal>
  )
}

function Drawing({ title, file, children }: Readonly<{ title: string; file: string; children: ReactNode }>) {
  const box = useRef<HTMLDivElement>(null)
  function save() {
    const svg = box.current?.querySelector('svg')
    if (svg) saveSvg(svg, file)
  }
  return (
    <figure className={styles.drawing} aria-label={title}>
      <figcaption>
        {title}
        <Button size="large" icon={<DownloadOutlined />} onClick={save}>
          SVG
        </Button>
      </figcaption>
      <div ref={box}>{children}</div>
    </figure>
  )
}

function Bare({ numbers }: Readonly<{ numbers: NumbersOnType }>) {
  const { shown } = useUnitSystem()
  return <BikeDrawing bikeType={numbers.bikeType} bike={numbers.bike} marks={numbers.marks} shown={shown} />
}

/** The rider as believed from what was read; the bike alone until that is worked out. */
function Ridden({ numbers, request }: Readonly<{ numbers: NumbersOnType; request: RecommendRequest }>) {
  const { shown } = useUnitSystem()
  const { answer } = useRecommendation(request)
  if (!answer) return <Bare numbers={numbers} />
  const { belief } = answer
  return (
    <SideView
      lengths={shown}
      bikeType={numbers.bikeType}
      bike={numbers.bike}
      marks={numbers.marks}
      rider={belief.rider}
      show="nothing"
      knee={{ deg: belief.kneeFlexionDeg.mean, sdDeg: belief.kneeFlexionDeg.sd }}
      plumbMm={belief.plumbOffsetMm.mean}
      windowText=""
    />
  )
}
