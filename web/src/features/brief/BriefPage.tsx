import { Button, Textarea } from '@mantine/core'
import { Link } from 'react-router'
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
