import { Button, Textarea } from '@mantine/core'
import { Link } from 'react-router'
import type { Plan } from '../../api/client'
import { withField } from '../build/edit'
import { Pick } from '../build/Inputs'
import { SecondsInput } from '../build/SecondsInput'
import { counts } from '../build/words'
import { useClassEditor } from '../editor/context'
import { SaveNote } from '../editor/SaveNote'
import css from './Brief.module.css'
import { BriefFields } from './BriefFields'

export function BriefPage() {
  const { plan, booking, change } = useClassEditor()
  return (
    <main className={css.inClass}>
      <BriefFields
        brief={{ title: plan.title, slotMinutes: plan.slotMinutes, aim: plan.aim ?? 'conditioning', booking }}
        onChange={(label, { booking: nextBooking, ...rest }) =>
          change(label, (draft) => ({
            plan: { ...draft.plan, ...rest },
            booking: nextBooking ?? draft.booking,
          }))
        }
      >
        <Leading />
        <Textarea
          label="Notes for yourself"
          autosize
          minRows={3}
          maxLength={4000}
          value={plan.notes ?? ''}
          onChange={(event) => {
            const notes = event.currentTarget.value
            change('notes', (draft) => ({ ...draft, plan: { ...draft.plan, notes } }))
          }}
        />
      </BriefFields>
      <div className={css.actions}>
        <Button component={Link} to="../build" relative="path">
          On to building
        </Button>
        <SaveNote />
      </div>
    </main>
  )
}

/** How the class is led: what its blocks follow unless they say otherwise. */
function Leading() {
  const { plan, change } = useClassEditor()
  const set = <K extends keyof Plan>(key: K, value: Plan[K] | undefined) =>
    change(String(key), (draft) => ({ ...draft, plan: withField(draft.plan, key, value) }))
  return (
    <div className={css.led}>
      <Pick
        label="First side"
        words={[
          ['left', 'left'],
          ['right', 'right'],
        ]}
        value={plan.startSide ?? 'left'}
        onChange={(v) => set('startSide', v as Plan['startSide'])}
      />
      <Pick
        label="You stand"
        width={180}
        words={[
          ['mirror', 'facing the class'],
          ['same', 'facing the same way'],
        ]}
        value={plan.facing ?? 'mirror'}
        onChange={(v) => set('facing', v as Plan['facing'])}
      />
      <Pick
        label="Counting"
        width={150}
        words={counts}
        value={plan.count ?? 'down'}
        onChange={(v) => set('count', v as Plan['count'])}
      />
      <SecondsInput
        label="Lead-in of a block"
        width={130}
        max={120}
        value={plan.leadInSeconds}
        placeholder="10 s"
        onChange={(v) => set('leadInSeconds', v)}
      />
      <SecondsInput
        label="To switch sides"
        width={120}
        step={1}
        max={60}
        value={plan.switchSeconds}
        placeholder="3 s"
        onChange={(v) => set('switchSeconds', v)}
      />
    </div>
  )
}
