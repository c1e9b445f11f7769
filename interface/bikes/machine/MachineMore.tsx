'use client'
import { EllipsisOutlined } from '@ant-design/icons'
import { App, Button, Dropdown, Modal, type MenuProps } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { NumberField } from '../../kit/NumberField'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import parts from '../parts.module.css'

type Props = Readonly<{
  bike: Readonly<{ id: string; number: number }>
  /** Nothing was recorded on it: it can be removed for good. */
  isUnused: boolean
}>

/** What is changed of a machine now and then: its number, that it retires, or that it was added by mistake. */
export function MachineMore({ bike, isUnused }: Props) {
  const router = useRouter()
  const { message, modal } = App.useApp()
  const { act, busy } = useAction()
  const [number, setNumber] = useState<number | null>(null)
  async function renumber() {
    if (number === null || !(await act(() => command('bikes.renumberMachine', { bikeId: bike.id, number })))) return
    setNumber(null)
    message.success(`Bike ${bike.number} is bike ${number} now.`, 4)
    router.refresh()
  }
  const retire = () =>
    modal.confirm({
      title: `Retire bike ${bike.number}?`,
      content:
        'It is offered nowhere any more and its number is free for another bike. What was recorded on it stays. ' +
        'Whoever has it in a coming class needs another bike.',
      okText: 'Retire it',
      cancelText: 'Keep it',
      onOk: async () => {
        const done = await act(() => command('bikes.retireMachine', { bikeId: bike.id }))
        if (!done) return
        const moved = done.riders === 1 ? '1 rider needs' : `${done.riders} riders need`
        message.success(
          <>
            Bike {bike.number} is retired.{done.riders > 0 && ` ${moved} another bike in a coming class.`}
            <Button
              type="link"
              onClick={() =>
                act(() => command('bikes.returnMachine', { bikeId: bike.id })).then(() => router.refresh())
              }
            >
              Back into use
            </Button>
          </>,
          8,
        )
        router.refresh()
      },
    })
  const newCode = () =>
    modal.confirm({
      title: `A new code for bike ${bike.number}?`,
      content: 'The printed one opens nothing from then on. Print the codes again and stick the new one on.',
      okText: 'New code',
      cancelText: 'Keep it',
      onOk: async () => {
        if (!(await act(() => command('alone.newCode', { bikeId: bike.id })))) return
        message.success('It has a new code. Print it from Bikes.', 5)
        router.refresh()
      },
    })
  const remove = async () => {
    if (await act(() => command('bikes.removeMachine', { bikeId: bike.id }))) router.push('/bikes')
  }
  const items: MenuProps['items'] = [
    { key: 'number', label: 'Change its number', onClick: () => setNumber(bike.number) },
    { key: 'code', label: 'Give it a new code', onClick: newCode },
    { key: 'retire', label: 'Retire it', onClick: retire },
    ...(isUnused ? [{ key: 'remove', label: 'Remove: added by mistake', danger: true, onClick: remove }] : []),
  ]
  return (
    <>
      <Dropdown trigger={['click']} menu={{ items }}>
        <Button size="large" icon={<EllipsisOutlined />}>
          More
        </Button>
      </Dropdown>
      <Modal
        open={number !== null}
        onCancel={() => setNumber(null)}
        footer={null}
        title={`Another number for bike ${bike.number}`}
        width={400}
      >
        <form
          className={parts.fields}
          onSubmit={(event) => {
            event.preventDefault()
            void renumber()
          }}
        >
          <label className={parts.wide}>
            Number
            <NumberField min={1} max={999} whole value={number ?? bike.number} onChange={setNumber} />
          </label>
          <Button
            className={parts.wide}
            type="primary"
            size="large"
            htmlType="submit"
            loading={busy}
            disabled={number === bike.number}
            block
          >
            Change the number
          </Button>
        </form>
      </Modal>
    </>
  )
}
