import { Button } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { useClassEditor } from '../editor/context'
import css from './Draft.module.css'
import { DraftCards } from './DraftCards'
import { useDrafts } from './useDrafts'
import { Dialog } from '../../ui/Dialog'

type Way = Schemas['DraftVariation']

const ways: [Way, string][] = [
  ['shorter', 'Ten minutes shorter'],
  ['noKit', 'Without kit'],
  ['kindToKnees', 'Kind to knees'],
  ['harder', 'One step harder'],
  ['otherMoves', 'Other moves, same shape'],
]

interface Props {
  /** Ids of what is to stay; empty: a version of the whole class is asked for. */
  pinned: string[]
  onClose: () => void
}

/** Other versions of the class that is open; what is taken is one step that can be undone. */
export function Redraw({ pinned, onClose }: Props) {
  const { plan, session, booking, change } = useClassEditor()
  const drafts = useDrafts()
  const [way, setWay] = useState<Way | null>(null)

  function ask(next: Way) {
    setWay(next)
    void drafts.ask(
      {
        brief: { slotMinutes: plan.slotMinutes },
        booking,
        session: session?.id,
        notLastTime: next === 'otherMoves',
        vary: next,
        class: plan,
        pinned,
      },
      next !== way,
    )
  }

  // What was selected to stay has been asked for already.
  const asked = useRef(pinned.length === 0)
  useEffect(() => {
    if (asked.current) return
    asked.current = true
    ask('redraw')
  })

  return (
    <Dialog onClose={onClose} size="min(1180px, 94vw)" title="Another version of this class">
      <div className={css.ways} role="group" aria-label="What should be different">
        {pinned.length > 0 && (
          <Button
            variant={way === 'redraw' ? 'filled' : 'default'}
            aria-pressed={way === 'redraw'}
            onClick={() => ask('redraw')}
          >
            {pinned.length === 1
              ? 'Keep the selected one, draft the rest'
              : `Keep the ${pinned.length} selected, draft the rest`}
          </Button>
        )}
        {ways.map(([value, label]) => (
          <Button
            key={value}
            variant={way === value ? 'filled' : 'default'}
            aria-pressed={way === value}
            onClick={() => ask(value)}
          >
            {label}
          </Button>
        ))}
      </div>
      <DraftCards
        drafting={drafts}
        onTake={(draft) => {
          change('take a draft', (now) => ({ ...now, plan: draft.plan }))
          onClose()
        }}
        onAnother={() => way && ask(way)}
        onStop={drafts.stop}
      />
    </Dialog>
  )
}
