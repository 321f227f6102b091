import { useEffect, useId, useState } from 'react'
import type { Schemas } from '../api/client'
import css from './FigureView.module.css'

type Drawn = Schemas['DrawnPose']
type Figure = Schemas['Figure']
type Measure = Schemas['DrawnMeasure']

/** One pose on its piece of floor, with what is held and leant on. */
function Pose({ pose, floor }: { pose: Drawn; floor: number[] }) {
  return (
    <>
      <path className={css.floor} d={`M${floor[0]} 0H${floor[1]}`} />
      {pose.props
        .filter((prop) => !held.has(prop.kind))
        .map((prop, i) => (
          <path key={i} className={css.prop} data-kind={prop.kind} d={prop.stroke} />
        ))}
      {pose.layers.map((layer, i) => (
        <path key={i} className={layer.tone === 'far' ? css.far : css.near} d={layer.path} />
      ))}
      {pose.props
        .filter((prop) => held.has(prop.kind))
        .map((prop, i) => (
          <path key={i} className={css.prop} data-kind={prop.kind} d={prop.stroke} />
        ))}
    </>
  )
}

/** What is in the hands lies over the body. */
const held = new Set(['weight', 'ball', 'bar', 'band'])

interface PairProps {
  pair: Schemas['FigurePair'] | null | undefined
  viewBox: string
  floor: number[]
  start: Drawn
  end: Drawn
  way: string
  felt?: string[]
}

/** Start, then end; one of them where nothing moves. */
function Pair({ pair, floor, start, end, way, felt = [] }: PairProps) {
  const tip = useId()
  return (
    <>
      {pair && <Pose pose={start} floor={floor} />}
      <g transform={pair ? `translate(${pair.x} ${pair.y})` : undefined}>
        <Pose pose={end} floor={floor} />
        {felt.map((stroke, i) => (
          <path key={i} className={css.felt} d={stroke} />
        ))}
        {pair && (
          <>
            <marker id={tip} viewBox="0 0 6 6" refX="4" refY="3" markerWidth="5" markerHeight="5" orient="auto">
              <path className={css.tip} d="M0 0L6 3L0 6Z" />
            </marker>
            <path className={css.way} d={way} markerEnd={`url(#${tip})`} />
          </>
        )}
      </g>
    </>
  )
}

/** A small figure for lists, next to the name that says what it is. */
export function Thumb({ pair, viewBox, floor, start, end, way }: PairProps) {
  return (
    <svg className={css.thumb} viewBox={pair?.viewBox ?? viewBox} aria-hidden="true">
      <Pair pair={pair} viewBox={viewBox} floor={floor} start={start} end={end} way={way} />
    </svg>
  )
}

interface FigureProps {
  figure: Figure
  /** How it goes, where it is asked to move. */
  moving?: Schemas['FigurePace'] | null
  /** Set-up measures, drawn where they are taken: at the end pose. */
  measures?: Measure[]
}

/** Room for measures: below the floor for lengths along it, to the sides for heights. They are drawn at the end pose. */
function roomFor(viewBox: string, measures: Measure[], shift: number): string {
  if (measures.length === 0) return viewBox
  const [x = 0, y = 0, w = 0, h = 0] = viewBox.split(' ').map(Number)
  const left = Math.min(x, ...measures.map((m) => shift + Math.min(m.x1, m.x2) - (m.y1 === m.y2 ? 4 : 34)))
  const right = Math.max(
    x + w,
    ...measures.map((m) => shift + Math.max(m.x1, m.x2) + (m.y1 === m.y2 || m.x1 < 0 ? 4 : 34)),
  )
  return `${left} ${y} ${right - left} ${h + 9}`
}

/** Start and end side by side, where it is felt, what moves. It moves itself only when it is asked to. */
export function FigureView({ figure, moving, measures = [] }: FigureProps) {
  const at = useFrame(moving, figure.frames.length - 1)
  const end = figure.frames.at(-1)!
  const pair = at === null ? figure.pair : null
  return (
    <svg
      className={css.figure}
      viewBox={roomFor(pair?.viewBox ?? figure.viewBox, measures, pair?.x ?? 0)}
      role="img"
      aria-label={figure.alt}
    >
      {at === null ? (
        <Pair {...figure} start={figure.frames[0]!} end={end} />
      ) : (
        <Pose pose={figure.frames[at]!} floor={figure.floor} />
      )}
      <g transform={pair ? `translate(${pair.x} ${pair.y})` : undefined}>
        {measures.map((m, i) => (
          <MeasureLine key={i} measure={m} />
        ))}
      </g>
    </svg>
  )
}

/** The frame to show while it moves; null while it does not. */
function useFrame(moving: Schemas['FigurePace'] | null | undefined, last: number): number | null {
  const [at, setAt] = useState<number | null>(null)
  useEffect(() => {
    if (!moving) return
    let frame = 0
    const began = performance.now()
    const { out, hold, back, stay } = moving
    const tick = (time: number) => {
      const into = ((time - began) / 1000) % (out + hold + back + stay)
      const share = into < out ? into / out : into < out + hold ? 1 : 1 - (into - out - hold) / back
      setAt(Math.round(Math.max(0, Math.min(1, share)) * last))
      frame = requestAnimationFrame(tick)
    }
    frame = requestAnimationFrame(tick)
    return () => {
      cancelAnimationFrame(frame)
      setAt(null)
    }
  }, [moving, last])
  return at
}

function MeasureLine({ measure: m }: { measure: Measure }) {
  const flat = m.y1 === m.y2
  return (
    <g className={css.measure}>
      <path
        d={
          flat
            ? `M${m.x1} ${m.y1 - 1.6}V${m.y1 + 1.6}M${m.x1} ${m.y1}H${m.x2}M${m.x2} ${m.y2 - 1.6}V${m.y2 + 1.6}`
            : `M${m.x1 - 1.6} ${m.y1}H${m.x1 + 1.6}M${m.x1} ${m.y1}V${m.y2}M${m.x2 - 1.6} ${m.y2}H${m.x2 + 1.6}`
        }
      />
      <text
        x={flat ? (m.x1 + m.x2) / 2 : m.x1 + (m.x1 < 0 ? -2 : 2)}
        y={flat ? m.y1 + 6.5 : (m.y1 + m.y2) / 2}
        textAnchor={flat ? 'middle' : m.x1 < 0 ? 'end' : 'start'}
      >
        {m.words}
      </text>
    </g>
  )
}
