import { useEffect, useId, useState } from 'react'
import type { Schemas } from '../api/client'
import css from './FigureView.module.css'

type Figure = Schemas['Figure']
type Layers = Figure['stills'][number]['layers']
type Measure = Schemas['DrawnMeasure']

/** A body on its piece of floor, from back to front. */
function Body({ floor, layers }: { floor: string; layers: Layers }) {
  return (
    <>
      <path className={css.floor} d={floor} />
      {layers.map((layer, i) => (
        <path key={i} className={css[layer.ink]} d={layer.path} />
      ))}
    </>
  )
}

/** The key poses beside each other; what moves goes along the arrow on the last of them. */
function Stills({ figure }: { figure: Figure }) {
  const tip = useId()
  return (
    <>
      {figure.stills.map((still, i) => (
        <g key={i} transform={`translate(${still.x} ${still.y})`}>
          <Body {...still} />
          {i === figure.stills.length - 1 && figure.way && (
            <>
              <marker id={tip} viewBox="0 0 6 6" refX="4" refY="3" markerWidth="5" markerHeight="5" orient="auto">
                <path className={css.tip} d="M0 0L6 3L0 6Z" />
              </marker>
              <path className={css.way} d={figure.way} markerEnd={`url(#${tip})`} />
            </>
          )}
        </g>
      ))}
    </>
  )
}

/** A small figure for lists, next to the name that says what it is. */
export function Thumb({ figure }: { figure: Figure }) {
  return (
    <svg className={css.thumb} viewBox={figure.viewBox} aria-hidden="true">
      <Stills figure={figure} />
    </svg>
  )
}

interface FigureProps {
  figure: Figure
  /** Set-up measures, drawn where they are taken: at the last pose. */
  measures?: Measure[]
}

/** Room for measures: below the floor for lengths along it, to the sides for heights. */
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

/** The key poses of an option, where it is felt, what moves. */
export function FigureView({ figure, measures = [] }: FigureProps) {
  const last = figure.stills.at(-1)!
  return (
    <svg className={css.figure} viewBox={roomFor(figure.viewBox, measures, last.x)} role="img" aria-label={figure.alt}>
      <Stills figure={figure} />
      <g transform={`translate(${last.x} ${last.y})`}>
        {measures.map((m, i) => (
          <MeasureLine key={i} measure={m} />
        ))}
      </g>
    </svg>
  )
}

/** The feet from above, forward up: pale where they begin, dark where they end. */
export function FootMap({ map }: { map: Schemas['FootMap'] }) {
  return (
    <svg className={css.map} viewBox={map.viewBox} role="img" aria-label="The feet from above, toes up">
      <path className={css.far} d={map.start} />
      <path className={css.near} d={map.end} />
    </svg>
  )
}

/** One rep after another, with what is done beside it. */
export function FilmView({ film, alt }: { film: Schemas['FigureFilm']; alt: string }) {
  const at = useFrame(film.frames.length, film.framesPerSecond)
  const phase = film.phases.find((p) => at / film.framesPerSecond < p.to)
  return (
    <span className={css.film}>
      <svg className={css.figure} viewBox={film.viewBox} role="img" aria-label={alt}>
        <Body floor={film.floor} layers={film.frames[at]!} />
      </svg>
      {film.phases.length > 1 && (
        <span className={css.phases} aria-hidden="true">
          {film.phases.map((p) => (
            <b key={p.from} data-now={p === phase}>
              {p.word}
            </b>
          ))}
        </span>
      )}
    </span>
  )
}

/** The frame to show now. */
function useFrame(frames: number, perSecond: number): number {
  const [at, setAt] = useState(0)
  useEffect(() => {
    let frame = 0
    const began = performance.now()
    const tick = (time: number) => {
      setAt(Math.floor(((time - began) / 1000) * perSecond) % frames)
      frame = requestAnimationFrame(tick)
    }
    frame = requestAnimationFrame(tick)
    return () => cancelAnimationFrame(frame)
  }, [frames, perSecond])
  return Math.max(0, Math.min(at, frames - 1))
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
