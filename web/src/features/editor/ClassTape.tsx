import { useClockFormat } from '../../api/queries'
import type { TapeSpan } from '../../ui/Tape'
import { Tape } from '../../ui/Tape'
import { timeOfDay } from '../../ui/time'
import type { Editor } from './useEditor'

interface Props {
  editor: Editor
  onBlock?: (index: number) => void
  onSpan?: (span: TapeSpan) => void
}

/** The tape of the class that is open, from its latest evaluation; or of a way out that is looked at. */
export function ClassTape({ editor, onBlock, onSpan }: Props) {
  const format = useClockFormat()
  const plan = editor.preview?.plan ?? editor.plan
  const evaluation = editor.preview?.evaluation ?? editor.evaluation
  const outline = plan.blocks.length === 0 ? [] : (evaluation?.outline ?? [])
  const spans = plan.blocks.length === 0 ? [] : (evaluation?.spans ?? [])
  return (
    <Tape
      slot={plan.slotMinutes * 60}
      timeOfDay={(seconds) => timeOfDay(editor.booking.startsAt, seconds, format)}
      preview={editor.preview ? `As it would be: ${editor.preview.evaluation.verdict}` : undefined}
      blocks={outline.map((block) => ({
        name: plan.blocks[block.block]?.name ?? '',
        start: block.start,
        end: block.end,
      }))}
      spans={spans.map((span, i) => ({
        start: span.start,
        end: span.end,
        kind: span.kind,
        side: span.side,
        block: span.block,
        station: span.station,
        round: (plan.blocks[span.block]?.rounds ?? 1) > 1 ? span.round : null,
        words: evaluation?.spanWords[i],
        water: span.kind === 'rest' && plan.blocks[span.block]?.water === true && span.part == null,
        families: (outline[span.block]?.stations ?? [])
          .filter((_, s) => span.station == null || s === span.station)
          .map((station) => station.family),
      }))}
      onBlock={onBlock}
      onSpan={onSpan}
    />
  )
}
