'use client'
import { Button, Modal, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { formatSaddle } from '@/core/messages/bikes/saddles'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import parts from '../parts.module.css'
import type { StudioSaddle } from './machine'
import { SaddleForm } from './SaddleForm'

export type CarriedSaddleProps = Readonly<{
  mayManage: boolean
  saddles: readonly StudioSaddle[]
  /** The id of the saddle it carries; null for its type's own. */
  carries: string | null
  since: string | null
}>

const OWN = 'own'

/** Which saddle this machine carries, and another put on it: what was measured on the old one then counts no more. */
export function CarriedSaddle({ bikeId, saddle }: Readonly<{ bikeId: string; saddle: CarriedSaddleProps }>) {
  const router = useRouter()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const { mayManage, saddles, carries, since } = saddle
  const [chosen, setChosen] = useState<string | null>(null)
  const [edited, setEdited] = useState<StudioSaddle | 'new' | null>(null)
  const on = saddles.find(({ id }) => id === carries)
  const picked = chosen ?? carries ?? OWN
  const isOther = picked !== (carries ?? OWN)
  async function fit() {
    const input = { bikeId, saddleId: picked === OWN ? null : picked }
    if (!(await act(() => command('bikes.fitSaddle', input, idFor(input))))) return
    forget()
    setChosen(null)
    router.refresh()
  }
  return (
    <div>
      <p>
        <b>{on ? on.model.name : 'Its type’s own saddle'}</b> {since && <span className={parts.quiet}>{since}</span>}
      </p>
      {on && <p className={parts.quiet}>{formatSaddle(on.model, shown)}</p>}
      <div className={parts.fields}>
        <label className={parts.wide}>
          Put on
          <Select
            size="large"
            aria-label="Put on"
            value={picked}
            onChange={setChosen}
            options={[
              { value: OWN, label: 'its type’s own' },
              ...saddles.map(({ id, model, bikes }) => {
                const on = bikes.length > 0 ? `; on ${bikes.join(', ')}` : ''
                return { value: id, label: `${model.name}, ${formatSaddle(model, shown)}${on}` }
              }),
            ]}
          />
        </label>
      </div>
      <div className={parts.ways}>
        {isOther && (
          <Button size="large" type="primary" onClick={fit} loading={busy}>
            It is on: tape and board again
          </Button>
        )}
        {mayManage && on && !isOther && (
          <Button size="large" onClick={() => setEdited(on)}>
            Change what it is
          </Button>
        )}
        {mayManage && (
          <Button size="large" onClick={() => setEdited('new')}>
            Another saddle
          </Button>
        )}
      </div>
      <Modal
        open={edited !== null}
        onCancel={() => setEdited(null)}
        footer={null}
        title={edited === 'new' ? 'A saddle of the studio' : 'What it is'}
        destroyOnHidden
      >
        {edited !== null && (
          <SaddleForm
            start={edited === 'new' ? null : edited}
            onSaved={(id) => {
              setEdited(null)
              setChosen(id)
              router.refresh()
            }}
          />
        )}
      </Modal>
    </div>
  )
}
