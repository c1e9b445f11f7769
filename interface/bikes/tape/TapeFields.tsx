import { Segmented } from 'antd'
import { LengthField } from '../../kit/LengthField'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import parts from '../parts.module.css'
import { SetbackSigns } from '../../kit/drawing/SetbackSigns'
import type { TapeMethod, TypedLengths } from './parseTape'

type Props = Readonly<{
  typed: TypedLengths
  method: TapeMethod
  onTyped: (change: Partial<TypedLengths>) => void
  onMethod: (method: TapeMethod) => void
  onEnter: () => void
}>

/** The four lengths of a reading, with the method in which setback and reach are measured. */
export function TapeFields({ typed, method, onTyped, onMethod, onEnter }: Props) {
  const { shown } = useUnitSystem()
  const field = (key: keyof TypedLengths, title: string) => (
    <LengthField
      title={title}
      typed={typed[key]}
      onTyped={(text) => onTyped({ [key]: text })}
      onEnter={onEnter}
      placeholder={shown === 'imperial' ? 'in' : 'mm'}
    />
  )
  return (
    <div className={parts.fields}>
      {field('saddleHeightMm', 'Saddle height, straight to the middle of the widest part')}
      {method.setback === 'direct' ? (
        field('setbackMm', 'Setback, axle to nose, level')
      ) : (
        <>
          {field('wallAxle', 'Wall behind to axle')}
          {field('wallNose', 'Wall behind to nose')}
        </>
      )}
      {method.reach === 'seat'
        ? field('reachMm', 'Reach, widest part to grip, level')
        : field('noseReach', 'Nose to grip, level')}
      {field('stackMm', 'Stack, axle to grip, upright')}
      {method.setback === 'direct' && <SetbackSigns />}
      <Segmented<TapeMethod['setback']>
        className={parts.wide}
        aria-label="Setback measured"
        value={method.setback}
        onChange={(setback) => onMethod({ ...method, setback })}
        options={[
          { value: 'direct', label: 'Setback directly' },
          { value: 'wall', label: 'against a wall' },
        ]}
        block
      />
      <Segmented<TapeMethod['reach']>
        className={parts.wide}
        aria-label="Reach measured"
        value={method.reach}
        onChange={(reach) => onMethod({ ...method, reach })}
        options={[
          { value: 'seat', label: 'Reach from the seat' },
          { value: 'nose', label: 'from the nose' },
        ]}
        block
      />
    </div>
  )
}
