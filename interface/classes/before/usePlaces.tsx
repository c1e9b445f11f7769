import { App, Button } from 'antd'
import { formatExtra } from '@/core/messages/classes/planning'
import type { FloorBefore } from '@/server/pages/classes/floor'
import { useAction } from '../../commands/useAction'
import { query, command, type CommandAnswer } from '../../commands/command'

/** A change of the places as its door answers. */
type PlacesAnswer = CommandAnswer<
  'places.assignBike' | 'places.addRider' | 'places.changeRider' | 'places.placeEverybody' | 'places.swapRiders'
>

/** Key of the one message about the places. */
const PLACES_MESSAGE = 'places'

/** Changes of a class's places: each shows what changed, with Undo. */
export function usePlaces(classId: string, floor: FloorBefore, refresh: () => void) {
  const { message, modal } = App.useApp()
  const { act, busy } = useAction()

  /** Changes the places, shows what changed, and offers Undo. */
  async function change(
    text: string | ((done: { number?: number | null }) => string),
    action: () => Promise<PlacesAnswer>,
  ) {
    const done = await act(action)
    if (!done) return false
    refresh()
    const sentences = [
      typeof text === 'string' ? text : text('number' in done ? done : {}),
      done.others,
      formatExtra(done.extraMin ?? null),
    ]
    const { undo } = done
    message.open({
      key: PLACES_MESSAGE,
      type: 'success',
      duration: 12,
      content: (
        <span>
          {sentences.filter(Boolean).join(' ')}{' '}
          {undo && (
            <Button
              onClick={async () => {
                message.destroy(PLACES_MESSAGE)
                if (await act(() => command('places.undoPlaces', { classId, undo }))) message.success('Taken back.', 3)
                refresh()
              }}
            >
              Undo
            </Button>
          )}
        </span>
      ),
    })
    return true
  }

  /** Places everybody again; from the doors on only after a look at who would move. */
  async function placeAgain() {
    const place = () =>
      change('Everybody is placed around who is here or pinned.', () => command('places.placeEverybody', { classId }))
    if (!floor.doorsOpen || floor.tiles.every(({ rider }) => !rider)) return place()
    const preview = await act(() => query('places.previewPlaces', { classId }))
    if (!preview) return
    if (preview.others === '') return place()
    modal.confirm({
      title: preview.others,
      content: formatExtra(preview.extraMin) || 'It takes as long to set everybody up as now.',
      okText: 'Move them',
      cancelText: 'Leave everybody',
      autoFocusButton: 'cancel',
      onOk: () => place().then(() => undefined),
    })
  }

  return { change, placeAgain, busy }
}
