import { Tape } from '../../ui/Tape'
import type { Editor } from './useEditor'

/** The tape of the class that is open, from its latest evaluation. */
export function ClassTape({ editor, onBlock }: { editor: Editor; onBlock?: (index: number) => void }) {
  const { evaluation, plan } = editor
  const outline = plan.blocks.length === 0 ? [] : (evaluation?.outline ?? [])
  const spans = plan.blocks.length === 0 ? [] : (evaluation?.spans ?? [])
  return (
    <Tape
      slot={plan.slotMinutes * 60}
      blocks={outline.map((block) => ({
        name: plan.blocks[block.block]?.name ?? '',
        start: block.start,
        end: block.end,
      }))}
      spans={spans.map((span) => ({
        start: span.start,
        end: span.end,
        kind: span.kind,
        side: span.side,
        families: (outline[span.block]?.stations ?? [])
          .filter((_, i) => span.station == null || i === span.station)
          .map((station) => station.family),
      }))}
      onBlock={onBlock}
    />
  )
}
