import { memo, useCallback, useMemo } from 'react'
import { useLocation } from 'react-router'
import type { Evaluation, Plan } from '../../api/client'
import { useClockFormat } from '../../api/queries'
import type { TapeBlock, TapeSpan } from '../../ui/Tape'
import { Tape } from '../../ui/Tape'
import { timeOfDay } from '../../ui/time'
import type { Editor } from './context'

interface Props {
  editor: Editor
  onBlock?: (index: number) => void
  onSpan?: (span: TapeSpan) => void
}

const SteadyTape = memo(Tape)

/** What the tape needs to know of the class itself, beside its evaluation. */
const namesOf = (plan: Plan) => JSON.stringify(plan.blocks.map((b) => [b.name, b.rounds ?? 1, b.water === true]))

/** A class on a tape, from its evaluation. */
export const shapesOf = (evaluation: Evaluation, plan: Plan) => shapes(evaluation, namesOf(plan))

function shapes(evaluation: Evaluation | null, names: string): { blocks: TapeBlock[]; spans: TapeSpan[] } {
  const named = JSON.parse(names) as [string, number, boolean][]
  if (named.length === 0 || !evaluation) return { blocks: [], spans: [] }
  const { outline } = evaluation
  return {
    blocks: outline.map((block) => ({ name: named[block.block]?.[0] ?? '', start: block.start, end: block.end })),
    spans: evaluation.spans.map((span, i) => ({
      start: span.start,
      end: span.end,
      kind: span.kind,
      side: span.side,
      block: span.block,
      station: span.station,
      round: (named[span.block]?.[1] ?? 1) > 1 ? span.round : null,
      words: evaluation.spanWords[i],
      water: span.kind === 'rest' && named[span.block]?.[2] === true && span.part == null,
      families: (outline[span.block]?.stations ?? [])
        .filter((_, s) => span.station == null || s === span.station)
        .map((station) => station.family),
    })),
  }
}

/** Where in the class that is which the address names as open. */
function placeOf(plan: Plan, open: string): { block: number; station?: number } | null {
  for (const [block, b] of plan.blocks.entries()) {
    if (open === `block-${b.id}`) return { block }
    const station = b.stations?.findIndex((s) => open === `station-${s.id}`) ?? -1
    if (station >= 0) return { block, station }
  }
  return null
}

/** The tape of the class that is open, from its latest evaluation; or of a way out that is looked at. */
export function ClassTape({ editor, onBlock, onSpan }: Props) {
  const format = useClockFormat()
  const plan = editor.preview?.plan ?? editor.plan
  const evaluation = editor.preview?.evaluation ?? editor.evaluation
  const names = namesOf(plan)
  const { blocks, spans } = useMemo(() => shapes(evaluation, names), [evaluation, names])
  const starts = editor.booking.startsAt
  const at = useCallback((seconds: number) => timeOfDay(starts, seconds, format), [starts, format])
  const { findings } = editor.checks
  const marked = useMemo(
    () =>
      blocks.map((block, i) => {
        const open = findings.filter(
          (f) => !f.waived && (f.pointer === `/blocks/${i}` || f.pointer?.startsWith(`/blocks/${i}/`)),
        )
        return {
          ...block,
          open: open.length,
          grave: open.some((f) => f.severity === 'stop' || f.severity === 'fix'),
        }
      }),
    [blocks, findings],
  )
  const { hash } = useLocation()
  const here = useMemo(() => placeOf(plan, decodeURIComponent(hash.slice(1))), [plan, hash])
  return (
    <SteadyTape
      here={here}
      slot={plan.slotMinutes * 60}
      timeOfDay={at}
      preview={editor.preview ? `Preview: ${editor.preview.evaluation.verdict}` : undefined}
      blocks={marked}
      hardest={editor.preview ? undefined : (editor.checks.hardest ?? undefined)}
      spans={spans}
      onBlock={onBlock}
      onSpan={onSpan}
    />
  )
}
