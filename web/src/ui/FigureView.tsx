import { useEffect, useRef, useState } from 'react'
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

/** The key poses beside each other; what moves goes along the arrow. */
function Stills({ figure }: { figure: Figure }) {
  return (
    <>
      {figure.stills.map((still, i) => (
        <g key={i} transform={`translate(${still.x} ${still.y})`}>
          <Body {...still} />
          {figure.arrow?.still === i && (
            <>
              <path className={css.way} d={figure.arrow.line} />
              <path className={css.tip} d={figure.arrow.head} />
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

/** Room for measures: below the floor for lengths along it, to the right for heights. */
function roomFor(viewBox: string, measures: Measure[], shift: { x: number; y: number }): string {
  if (measures.length === 0) return viewBox
  const [x = 0, y = 0, w = 0, h = 0] = viewBox.split(' ').map(Number)
  const left = Math.min(x, ...measures.map((m) => shift.x + Math.min(m.x1, m.x2) - 4))
  const right = Math.max(x + w, ...measures.map((m) => shift.x + Math.max(m.x1, m.x2) + (m.lead ? 34 : 4)))
  return `${left} ${y} ${right - left} ${h + 9}`
}

/** The key poses of an option, where it is felt, what moves. */
export function FigureView({ figure, measures = [] }: FigureProps) {
  const last = figure.stills.at(-1)!
  const there = `translate(${last.x} ${last.y})`
  return (
    <svg className={css.figure} viewBox={roomFor(figure.viewBox, measures, last)} role="img" aria-label={figure.alt}>
      <g transform={there}>{measures.map((m, i) => m.lead && <path key={i} className={css.lead} d={m.lead} />)}</g>
      <Stills figure={figure} />
      <g transform={there}>
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
    <figure className={css.footMap}>
      <svg className={css.map} viewBox={map.viewBox} role="img" aria-label="The feet from above, toes up">
        {map.start && <path className={css.far} d={map.start} />}
        <path className={css.near} d={map.end} />
        {map.labels.map((label) => (
          <text key={label.text} x={label.x} y={label.y} textAnchor="middle">
            {label.text}
          </text>
        ))}
      </svg>
      <figcaption>feet from above</figcaption>
    </figure>
  )
}

interface FilmProps {
  film: Schemas['FigureFilm']
  alt: string
  /** Seconds into the film, from a clock of somebody else: it stands still where that does. Left out: it runs by itself. */
  clock?: () => number
}

/** One rep after another, with what is done beside it. */
export function FilmView({ film, alt, clock }: FilmProps) {
  const moving = useRef<SVGGElement>(null)
  const [phase, setPhase] = useState(0)
  useEffect(() => {
    const began = performance.now()
    const paths = [...moving.current!.children]
    let next = 0
    let shown = -1
    const draw = (time: number) => {
      next = requestAnimationFrame(draw)
      const second = (clock ? clock() : (time - began) / 1000) % film.seconds
      const at = Math.min(film.frames.length - 1, Math.max(0, Math.floor(second * film.framesPerSecond)))
      if (at === shown) return
      shown = at
      show(paths, film.frames[at]!)
      setPhase(film.phases.findIndex((p) => at / film.framesPerSecond < p.to))
    }
    next = requestAnimationFrame(draw)
    return () => cancelAnimationFrame(next)
  }, [film, clock])
  const most = film.frames.reduce((n, frame) => Math.max(n, frame.length), 0)
  return (
    <span className={css.film}>
      <svg className={css.figure} viewBox={film.viewBox} role="img" aria-label={alt}>
        <Body floor={film.floor} layers={film.still} />
        <g ref={moving}>
          {Array.from({ length: most }, (_, i) => (
            <path key={i} className={css[film.frames[0]![i]?.ink ?? 'near']} d={film.frames[0]![i]?.path} />
          ))}
        </g>
      </svg>
      {film.phases.length > 1 && (
        <span className={css.phases} aria-hidden="true">
          {film.phases.map((p, i) => (
            <b key={p.from} data-now={i === phase}>
              {p.word}
            </b>
          ))}
        </span>
      )}
    </span>
  )
}

/** A frame into the paths that are there: React is not asked fifty times a second. */
function show(paths: Element[], layers: Layers) {
  paths.forEach((path, i) => {
    const layer = layers[i]
    path.setAttribute('d', layer?.path ?? '')
    if (layer) path.setAttribute('class', css[layer.ink] ?? '')
  })
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
        x={flat ? (m.x1 + m.x2) / 2 : m.x1 + 2.5}
        y={flat ? m.y1 + 6.5 : (m.y1 + m.y2) / 2}
        textAnchor={flat ? 'middle' : 'start'}
      >
        {m.words}
      </text>
    </g>
  )
}
