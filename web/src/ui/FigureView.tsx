import { useEffect, useState } from 'react'
import type { Schemas } from '../api/client'
import css from './FigureView.module.css'

type Drawn = Schemas['DrawnPose']
type Figure = Schemas['Figure']

function Body({ pose, tone }: { pose: Drawn; tone: string | undefined }) {
  return (
    <g className={tone}>
      <path className={css.far} d={pose.far} />
      <path d={pose.near} />
      <circle cx={pose.headX} cy={pose.headY} r={pose.headRadius} />
    </g>
  )
}

function Props({ pose }: { pose: Drawn }) {
  return pose.props.map((prop, i) => <path key={i} className={css.prop} data-kind={prop.kind} d={prop.stroke} />)
}

interface ThumbProps {
  viewBox: string
  start: Drawn
  end: Drawn
  way: string
}

/** A small figure for lists, next to the name that says what it is. */
export function Thumb({ viewBox, start, end, way }: ThumbProps) {
  return (
    <svg className={css.thumb} viewBox={viewBox} aria-hidden="true">
      <Props pose={end} />
      <Body pose={start} tone={css.start} />
      <path className={css.way} d={way} />
      <Body pose={end} tone={css.end} />
    </svg>
  )
}

interface FigureProps {
  figure: Figure
  /** How it goes, where it is asked to move. */
  moving?: Schemas['FigurePace'] | null
  /** Set-up measures, drawn where they are taken. */
  measures?: Schemas['DrawnMeasure'][]
}

/** Room for measures: below the floor for lengths along it, to the sides for heights. */
function roomFor(viewBox: string, measures: Schemas['DrawnMeasure'][]): string {
  if (measures.length === 0) return viewBox
  const [x = 0, y = 0, w = 0, h = 0] = viewBox.split(' ').map(Number)
  const left = Math.min(x, ...measures.map((m) => Math.min(m.x1, m.x2) - (m.y1 === m.y2 ? 4 : 34)))
  const right = Math.max(x + w, ...measures.map((m) => Math.max(m.x1, m.x2) + (m.y1 === m.y2 || m.x1 < 0 ? 4 : 34)))
  return `${left} ${y} ${right - left} ${h + 9}`
}

/** Start pose light, end pose dark, the way between, where it is felt. It moves only when it is asked to. */
export function FigureView({ figure, moving, measures = [] }: FigureProps) {
  const [at, setAt] = useState<number | null>(null)
  const last = figure.frames.length - 1

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

  const shown = figure.frames[at ?? last]!
  return (
    <svg className={css.figure} viewBox={roomFor(figure.viewBox, measures)} role="img" aria-label={figure.alt}>
      {at === null && figure.felt.map((stroke, i) => <path key={i} className={css.felt} d={stroke} />)}
      <Props pose={shown} />
      <Body pose={figure.frames[0]!} tone={css.start} />
      {at === null && <path className={css.way} d={figure.way} />}
      <Body pose={shown} tone={css.end} />
      {measures.map((m, i) => {
        const flat = m.y1 === m.y2
        return (
          <g key={i} className={css.measure}>
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
      })}
      {at === null &&
        measures.length === 0 &&
        figure.angles.map((angle, i) => (
          <text key={i} x={angle.x} y={angle.y} className={css.angle} textAnchor={i === 0 ? 'start' : 'end'}>
            {angle.words}
          </text>
        ))}
    </svg>
  )
}
