import type { KeyboardEvent, PointerEvent } from 'react'
import { useElementSize } from '@mantine/hooks'
import { memo, useRef, useState } from 'react'
import type { Family } from '../api/client'
import css from './Tape.module.css'
import { clock, spoken } from './time'
import { many } from './words'

export interface TapeSpan {
  start: number
  end: number
  kind: 'leadIn' | 'work' | 'switch' | 'change' | 'rest' | 'wait' | 'talk'
  side?: string | null
  /** One, or one for each station that is worked at once. */
  families?: Family[]
  /** What it is, with its arithmetic. */
  words?: string
  /** From 0, where the block goes round more than once. */
  round?: number | null
  block?: number
  station?: number | null
  /** A rest in which the class drinks. */
  water?: boolean
}

export interface TapeBlock {
  name: string
  start: number
  end: number
  /** How many things are to be looked at in it, and whether one of them must not stay so. */
  open?: number
  grave?: boolean
}

interface Props {
  spans: TapeSpan[]
  blocks: TapeBlock[]
  /** Booked seconds. */
  slot: number
  /** Where the class is now, in seconds. */
  now?: number
  dark?: boolean
  /** The time of day at a place on the tape. */
  timeOfDay?: (seconds: number) => string | null
  /** What the tape shows instead of the class, such as a way out that is looked at. */
  preview?: string
  /** The hardest moment of the class. */
  hardest?: { at: number; words: string }
  /** What is open below: the spans of a station, or of a block. */
  here?: { block: number; station?: number } | null
  onBlock?: (index: number) => void
  onSpan?: (span: TapeSpan) => void
}

const HEIGHT = 64
const ZOOMS = [1, 2, 4, 8, 16, 32]

/** A line along the top edge over what is open below. */
function Here({ spans, here }: { spans: TapeSpan[]; here: { block: number; station?: number } }) {
  return spans
    .filter(
      (span) =>
        span.block === here.block &&
        (here.station === undefined || (span.station === here.station && span.kind !== 'change')),
    )
    .map((span) => (
      <rect key={span.start} className={css.here} x={span.start} y="0" width={span.end - span.start} height="5" />
    ))
}

/** The class to scale: a measuring tape with the booked slot marked on it. */
export function Tape({ spans, blocks, slot, now, dark, timeOfDay, preview, hardest, here, onBlock, onSpan }: Props) {
  const length = spans.at(-1)?.end ?? 0
  const axis = Math.max(length, slot)
  const at = (seconds: number) => `${(100 * seconds) / axis}%`
  const [zoom, setZoom] = useState(1)
  const [chosen, setChosen] = useState<number | null>(null)
  const scroller = useRef<HTMLDivElement>(null)
  const { ref: strip, width } = useElementSize()
  // Minutes keep clear of the label that stands left of the slot's end.
  const perPixel = axis / Math.max(width, 320)
  const clear = (second: number) => second < slot - 108 * perPixel || second > slot + 16 * perPixel
  const walks = spans.some((span) => span.words !== undefined)
  const minutes = Array.from({ length: Math.floor(axis / 60) + 1 }, (_, i) => i)
  const labelEvery = [1, 2, 5, 10, 15, 30, 60, 120].find((step) => (step * 60) / perPixel >= 26) ?? 240
  const shown = chosen === null ? undefined : spans[chosen]

  function zoomTo(next: number, centre?: number) {
    setZoom(next)
    const seconds = centre ?? (shown ? (shown.start + shown.end) / 2 : undefined)
    requestAnimationFrame(() => {
      const box = scroller.current
      if (!box) return
      const middle = seconds === undefined ? (box.scrollLeft + box.clientWidth / 2) / box.scrollWidth : seconds / axis
      box.scrollLeft = middle * box.scrollWidth - box.clientWidth / 2
    })
  }

  /** The zoom at which a stretch about fills the width. */
  const zoomFor = (seconds: number) => [...ZOOMS].reverse().find((z) => seconds * z <= axis * 0.9) ?? 1

  function choose(index: number) {
    setChosen(index)
    const span = spans[index]
    const box = scroller.current
    if (!span || !box) return
    const left = (span.start / axis) * box.scrollWidth
    const right = (span.end / axis) * box.scrollWidth
    if (left < box.scrollLeft || right > box.scrollLeft + box.clientWidth) box.scrollLeft = left - 40
  }

  function onPoint(event: PointerEvent<HTMLDivElement>) {
    const box = event.currentTarget.getBoundingClientRect()
    const seconds = ((event.clientX - box.left) / box.width) * axis
    const index = spans.findIndex((span) => seconds >= span.start && seconds < span.end)
    setChosen(index < 0 ? null : index)
  }

  function onKey(event: KeyboardEvent) {
    const from = chosen ?? -1
    const last = spans.length - 1
    if (event.key === 'ArrowRight') choose(Math.min(last, from + 1))
    else if (event.key === 'ArrowLeft') choose(Math.max(0, from - 1))
    else if (event.key === 'Home') choose(0)
    else if (event.key === 'End') choose(last)
    else if (event.key === '+' || event.key === '=') zoomTo(ZOOMS[Math.min(ZOOMS.length - 1, ZOOMS.indexOf(zoom) + 1)]!)
    else if (event.key === '-') zoomTo(ZOOMS[Math.max(0, ZOOMS.indexOf(zoom) - 1)]!)
    else if (event.key === 'Enter' && shown) onSpan?.(shown)
    else return
    event.preventDefault()
  }

  const walking = walks && {
    role: 'slider',
    tabIndex: 0,
    'aria-label': 'Move along the tape',
    'aria-valuemin': 0,
    'aria-valuemax': Math.max(0, spans.length - 1),
    'aria-valuenow': chosen ?? 0,
    'aria-valuetext': shown ? `${spoken(shown.start)}: ${shown.words}` : 'nothing selected',
    onKeyDown: onKey,
    onPointerMove: onPoint,
    onPointerLeave: () => setChosen(null),
    onBlur: () => setChosen(null),
    onClick: () => shown && onSpan?.(shown),
  }

  return (
    <div className={`${css.tape} ${dark ? css.dark : ''}`} data-testid="tape">
      <div ref={scroller} className={css.scroller} data-zoomed={zoom > 1}>
        <div ref={strip} className={css.strip} style={{ width: `${100 * zoom}%` }}>
          <div className={css.blocks} aria-hidden={onBlock ? undefined : true}>
            {blocks.map((block, i) => (
              <button
                key={i}
                type="button"
                className={css.block}
                style={{ left: at(block.start), width: at(block.end - block.start) }}
                title={`${block.name}, ${clock(block.end - block.start)}`}
                aria-label={
                  `Go to ${block.name}, ${spoken(block.end - block.start)}` +
                  (block.open ? `, ${many(block.open, 'thing', 'things')} to check` : '')
                }
                tabIndex={onBlock ? 0 : -1}
                onClick={() => onBlock?.(i)}
                onDoubleClick={() => zoomTo(zoomFor(block.end - block.start), (block.start + block.end) / 2)}
              >
                {block.open ? (
                  <span className={css.open} data-grave={block.grave} aria-hidden="true" data-count={block.open} />
                ) : null}
                {block.name}
              </button>
            ))}
          </div>
          <div className={css.walk} {...walking}>
            <svg className={css.band} viewBox={`0 0 ${axis} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden="true">
              <defs>
                <pattern
                  id="hatch"
                  width={axis / 170 / zoom}
                  height="8"
                  patternUnits="userSpaceOnUse"
                  patternTransform={`skewX(${-Math.min(80, (Math.atan(axis / 170 / zoom / 8) * 180) / Math.PI)})`}
                >
                  <rect width={axis / 640 / zoom} height="8" fill="#8a6a1c" opacity="0.75" />
                </pattern>
              </defs>
              <rect className={css.cloth} x="0" y="0" width={Math.min(length, slot)} height={HEIGHT} />
              {length < slot && (
                <rect className={css.idle} x={length} y="1" width={slot - length} height={HEIGHT - 2} />
              )}
              {length > slot && <rect className={css.beyond} x={slot} y="0" width={length - slot} height={HEIGHT} />}
              <Shapes spans={spans} />
              {spans.map(
                (span, i) =>
                  startsRound(spans, i) && (
                    <line key={i} className={css.roundLine} x1={span.start} x2={span.start} y1="0" y2="50" />
                  ),
              )}
              {here && <Here spans={spans} here={here} />}
              {shown && (
                <rect
                  className={css.chosen}
                  x={shown.start}
                  y="1"
                  width={shown.end - shown.start}
                  height={HEIGHT - 2}
                />
              )}
              {minutes.map((minute) => (
                <line
                  key={minute}
                  className={css.tick}
                  x1={minute * 60}
                  x2={minute * 60}
                  y1={HEIGHT}
                  y2={HEIGHT - (minute % 5 === 0 ? 12 : 6)}
                />
              ))}
            </svg>
            {spans.map(
              (span, i) =>
                (startsRound(spans, i) || span.water) && (
                  <span key={i} className={css.mark} style={{ left: at(span.start) }} aria-hidden="true">
                    {span.water ? '◊' : (span.round ?? 0) + 1}
                  </span>
                ),
            )}
          </div>
          <div className={css.scale} aria-hidden="true">
            {minutes
              .filter((m) => m % labelEvery === 0 && clear(m * 60) && m * 60 < axis - 14 * perPixel)
              .map((minute) => (
                <span key={minute} className={css.minute} style={{ left: at(minute * 60) }}>
                  {minute}
                </span>
              ))}
          </div>
          <div className={css.slot} style={{ left: `calc(${at(slot)} - 3px)` }} aria-hidden="true">
            <span className={css.slotLabel}>{slot / 60} min booked</span>
          </div>
          {hardest && (
            <span className={css.hardest} style={{ left: at(hardest.at) }} title={hardest.words} aria-hidden="true">
              ▲
            </span>
          )}
          {now !== undefined && (
            <div className={css.now} style={{ left: at(Math.min(now, axis)) }} aria-hidden="true" />
          )}
        </div>
      </div>
      {walks && (
        <div className={css.below}>
          <p className={css.readout} data-testid="readout">
            {preview ? (
              <b>{preview}</b>
            ) : shown ? (
              <>
                <b>{timeOfDay?.(shown.start) ?? clock(shown.start)}</b> {shown.words}
              </>
            ) : (
              <Ends spans={spans} slot={slot} timeOfDay={timeOfDay} />
            )}
          </p>
          <div className={css.zoom}>
            <button
              type="button"
              disabled={zoom === 1}
              onClick={() => zoomTo(ZOOMS[ZOOMS.indexOf(zoom) - 1] ?? 1)}
              aria-label="Zoom out"
              title="Zoom out (−)"
            >
              −
            </button>
            <button
              type="button"
              disabled={zoom === ZOOMS.at(-1)}
              onClick={() => zoomTo(ZOOMS[ZOOMS.indexOf(zoom) + 1] ?? zoom)}
              aria-label="Zoom in"
              title="Zoom in (+)"
            >
              +
            </button>
            {zoom > 1 && (
              <button type="button" onClick={() => zoomTo(1)}>
                Whole class
              </button>
            )}
          </div>
        </div>
      )}
      <ol className="hidden">
        {blocks.map((block, i) => (
          <li key={i}>
            {block.name}: {spoken(block.end - block.start)}, starts at {clock(block.start)}
          </li>
        ))}
      </ol>
    </div>
  )
}

/** Whether a new round of a block that goes round more than once begins here. */
function startsRound(spans: TapeSpan[], i: number): boolean {
  const span = spans[i]!
  const before = spans[i - 1]
  return (
    span.round != null &&
    span.kind === 'work' &&
    (span.round > 0 ? before?.kind !== 'work' || before.round !== span.round : false) &&
    !spans
      .slice(Math.max(0, i - 3), i)
      .some((s) => s.kind === 'work' && s.block === span.block && s.round === span.round)
  )
}

/** The clock at both ends, while nothing is chosen. */
function Ends({
  spans,
  slot,
  timeOfDay,
}: {
  spans: TapeSpan[]
  slot: number
  timeOfDay?: (s: number) => string | null
}) {
  const end = spans.at(-1)?.end
  const from = timeOfDay?.(0)
  if (end === undefined || !from) return <>Point at the tape, or move along it with the arrow keys.</>
  return (
    <>
      <b>{from}</b> to <b>{timeOfDay?.(end)}</b>, booked until <b>{timeOfDay?.(slot)}</b>
    </>
  )
}

/** All that lies on the tape: drawn anew only for another class, not for each pointing at it. */
const Shapes = memo(function Shapes({ spans }: { spans: TapeSpan[] }) {
  return spans.map((span, i) => <Shape key={i} span={span} />)
})

/** Work is solid, its sides two half-widths; rests are hatched; talk is blank; the rest is bare tape. */
function Shape({ span }: { span: TapeSpan }) {
  const box = { x: span.start, width: span.end - span.start }
  switch (span.kind) {
    case 'work': {
      const top = span.side === 'right' ? 27 : 6
      const height = span.side === 'left' || span.side === 'right' ? 19 : 40
      const families = span.families?.length ? span.families : (['window'] as const)
      return families.map((family, i) => (
        <rect
          key={i}
          {...box}
          y={top + (i * height) / families.length}
          height={height / families.length - (families.length > 1 ? 1 : 0)}
          className={css[family]}
        />
      ))
    }
    case 'rest':
    case 'wait':
      return <rect {...box} y="6" height="40" fill="url(#hatch)" />
    case 'talk':
      return <rect {...box} y="6" height="40" className={css.talk} />
    case 'leadIn':
      return <rect {...box} y="40" height="6" className={css.leadIn} />
    default:
      return null
  }
}
