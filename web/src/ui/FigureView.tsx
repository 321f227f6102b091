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

const REST = 700

interface FigureProps {
  figure: Figure
  /** Seconds from start to end and back, where the figure is asked to move. */
  moving?: { out: number; hold: number; back: number } | null
}

/** Start pose light, end pose dark, the way between, where it is felt. It moves only when it is asked to. */
export function FigureView({ figure, moving }: FigureProps) {
  const [at, setAt] = useState<number | null>(null)
  const last = figure.frames.length - 1

  useEffect(() => {
    if (!moving) return
    let frame = 0
    const began = performance.now()
    const out = Math.max(0.3, moving.out) * 1000
    const back = Math.max(0.3, moving.back) * 1000
    const turn = out + moving.hold * 1000 + back + REST
    const tick = (time: number) => {
      const into = (time - began) % turn
      const share =
        into < out ? into / out : into < out + moving.hold * 1000 ? 1 : 1 - (into - out - moving.hold * 1000) / back
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
    <svg className={css.figure} viewBox={figure.viewBox} role="img" aria-label={figure.alt}>
      {at === null && figure.felt.map((stroke, i) => <path key={i} className={css.felt} d={stroke} />)}
      <Props pose={shown} />
      <Body pose={figure.frames[0]!} tone={css.start} />
      {at === null && <path className={css.way} d={figure.way} />}
      <Body pose={shown} tone={css.end} />
      {at === null &&
        figure.angles.map((angle, i) => (
          <text key={i} x={angle.x} y={angle.y} className={css.angle} textAnchor={i === 0 ? 'start' : 'end'}>
            {angle.words}
          </text>
        ))}
    </svg>
  )
}
