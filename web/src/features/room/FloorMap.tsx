import { Button } from '@mantine/core'
import type { KeyboardEvent, PointerEvent } from 'react'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import css from './Room.module.css'
import type { FloorSpot } from './useRoom'

type View = Schemas['FloorView']
type Station = View['floor']['stations'][number]

/** Stations snap to a quarter of a metre. */
const snap = (metres: number) => Math.round(metres * 4) / 4
const STEP = 0.25
/** Room outside the walls, for what is written there. */
const MARGIN = 0.75

/** Where the name of something fixed stands: outside the wall it is at, so that no station lies over it; else beneath it. */
function labelAt(fixture: View['floor']['hall']['fixtures'][number], hall: View['floor']['hall']) {
  const [x, y] = [fixture.x + fixture.widthM / 2, fixture.y + fixture.lengthM / 2]
  const near = 0.3
  if (fixture.y < near) return { x, y: -0.25 }
  if (fixture.y + fixture.lengthM > hall.lengthM - near)
    return { x: Math.min(x, hall.widthM * 0.6), y: hall.lengthM + 0.5 }
  if (fixture.x < near) return { transform: `translate(-0.25 ${y}) rotate(-90)` }
  if (fixture.x + fixture.widthM > hall.widthM - near)
    return { transform: `translate(${hall.widthM + 0.5} ${Math.min(y, hall.lengthM * 0.6)}) rotate(-90)` }
  return { x, y: fixture.y + fixture.lengthM + 0.35 }
}

interface Props {
  view: View
  spots: Record<string, FloorSpot>
  onPut: (spots: Record<string, FloorSpot>) => void
  onAuto?: () => void
}

/** The floor to scale. A station is dragged, or moved with the arrow keys; T turns it. */
export function FloorMap({ view, spots, onPut, onAuto }: Props) {
  const { hall, stations, troubles } = view.floor
  const svg = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<{ id: string; x: number; y: number; dx: number; dy: number } | null>(null)
  const [window, setWindow] = useState(0)
  const now = view.windows[Math.min(window, view.windows.length - 1)]
  const movable = view.windows.length > 0
  const bad = new Set(troubles.map((t) => t.station))

  function metres(event: PointerEvent) {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.current!.getScreenCTM()!.inverse())
    return { x: point.x, y: point.y }
  }
  const within = (x: number, y: number) => ({
    x: Math.min(Math.max(x, 0), hall.widthM),
    y: Math.min(Math.max(y, 0), hall.lengthM),
  })
  // Who moves one station wants the others to stay where they are.
  const put = (station: Station, x: number, y: number, turned = station.turned) =>
    onPut({
      ...Object.fromEntries(stations.map((s) => [s.station, { x: s.x, y: s.y, turned: s.turned }])),
      ...spots,
      [station.station]: { ...within(snap(x), snap(y)), turned },
    })

  /** Where it is just now: under the finger, where it was put last, else where the server laid it. */
  const place = (station: Station) =>
    drag?.id === station.station ? drag : (spots[station.station] ?? { x: station.x, y: station.y })

  function onKey(event: KeyboardEvent, station: Station) {
    const { x, y } = place(station)
    const by = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] }[event.key]
    if (by) put(station, x + by[0]!, y + by[1]!)
    else if (event.key.toLowerCase() === 't' && !event.ctrlKey && !event.metaKey) put(station, x, y, !station.turned)
    else return
    event.preventDefault()
  }

  return (
    <section aria-label={`The floor of ${view.name}`} className={css.map}>
      {troubles.length > 0 && (
        <ul className={css.troubles} role="status">
          {troubles.map((trouble) => (
            <li key={trouble.words}>{trouble.words}</li>
          ))}
        </ul>
      )}
      {troubles.length === 0 && view.known && <p className={css.good}>Everything fits.</p>}
      {!view.known && (
        <p>
          Whether it fits is not known: this is a room of {hall.widthM} × {hall.lengthM} m.{' '}
          <Link to="/rooms">Write down your room</Link> once under Rooms.
        </p>
      )}
      <svg
        ref={svg}
        className={css.plan}
        viewBox={`${-MARGIN} ${-MARGIN} ${hall.widthM + 2 * MARGIN} ${hall.lengthM + 2 * MARGIN}`}
        role="group"
        aria-label={`${hall.widthM} by ${hall.lengthM} metres, front at the top`}
      >
        <rect className={css.walls} x={0} y={0} width={hall.widthM} height={hall.lengthM} />
        {hall.fixtures.map((fixture, i) => (
          <g key={i}>
            <rect
              className={css.fixture}
              data-kind={fixture.kind}
              x={fixture.x}
              y={fixture.y}
              width={fixture.widthM}
              height={fixture.lengthM}
            />
          </g>
        ))}
        {movable && stations.length > 1 && (
          <path
            className={css.wayRound}
            d={`M${stations.map((s) => `${place(s).x} ${place(s).y}`).join('L')}Z`}
            aria-hidden="true"
          />
        )}
        {stations.map((station, i) => (
          <g key={station.station}>
            <g
              className={css.spot}
              data-bad={bad.has(station.station)}
              data-lane={station.lane}
              data-put={station.put}
              transform={`translate(${place(station).x} ${place(station).y})`}
              tabIndex={movable ? 0 : undefined}
              role={movable ? 'button' : undefined}
              aria-label={
                movable
                  ? `Station ${station.number}, ${station.name}, ${station.x} metres from the left, ${station.y} from the front. ` +
                    'Arrow keys move it, T turns it.'
                  : undefined
              }
              onKeyDown={movable ? (event) => onKey(event, station) : undefined}
              onPointerDown={(event) => {
                if (!movable) return
                const at = metres(event)
                ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
                const { x, y } = place(station)
                setDrag({ id: station.station, x, y, dx: at.x - x, dy: at.y - y })
              }}
              onPointerMove={(event) => {
                if (drag?.id !== station.station) return
                const at = metres(event)
                const to = within(snap(at.x - drag.dx), snap(at.y - drag.dy))
                setDrag({ ...drag, ...to })
              }}
              onPointerUp={() => {
                if (drag?.id !== station.station) return
                setDrag(null)
                const from = spots[station.station] ?? station
                if (drag.x !== from.x || drag.y !== from.y) put(station, drag.x, drag.y)
              }}
              onPointerCancel={() => setDrag(null)}
            >
              <rect x={-station.widthM / 2} y={-station.lengthM / 2} width={station.widthM} height={station.lengthM} />
            </g>
            {/* The words stand beside the button that they are drawn on: its own name says more. */}
            <g transform={`translate(${place(station).x} ${place(station).y})`} pointerEvents="none">
              <text className={css.spotNumber} y={-0.3}>
                {movable ? station.number : ''}
              </text>
              <text className={css.spotName} y={0.08}>
                {station.name}
              </text>
              <text className={css.spotSize} y={0.42}>
                {station.widthM} × {station.lengthM} m
                {station.needs && `, needs ${station.needs === 'wall' ? 'a wall' : 'the anchor'}`}
              </text>
              {now && (
                <text className={css.spotGroup} y={0.8}>
                  group {now.groups[i]}
                </text>
              )}
            </g>
          </g>
        ))}
        {hall.fixtures.map((fixture, i) => (
          <text key={i} className={css.fixtureName} {...labelAt(fixture, hall)}>
            {fixture.name ?? fixture.kind}
          </text>
        ))}
        {/* How long the walls are, outside of them. */}
        <text className={css.wallSize} x={hall.widthM} y={hall.lengthM + 0.5} textAnchor="end">
          {hall.widthM} m wide
        </text>
        <text
          className={css.wallSize}
          textAnchor="start"
          transform={`translate(${hall.widthM + 0.5} ${hall.lengthM}) rotate(-90)`}
        >
          {hall.lengthM} m long
        </text>
      </svg>
      <p className={css.under} data-screen-only>
        {now && (
          <>
            <Button size="xs" variant="default" disabled={window === 0} onClick={() => setWindow(window - 1)}>
              Previous bell
            </Button>
            <strong role="status">Groups {now.words}</strong>
            <Button
              size="xs"
              variant="default"
              disabled={window >= view.windows.length - 1}
              onClick={() => setWindow(window + 1)}
            >
              Next bell
            </Button>
          </>
        )}
        {onAuto && (
          <Button size="xs" variant="default" onClick={onAuto}>
            Reset the layout
          </Button>
        )}
        <a
          href={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(view.svg)}`}
          download={`${view.name} floor.svg`}
        >
          Download the floor plan
        </a>
        <Button size="xs" variant="default" onClick={() => globalThis.print()}>
          Print
        </Button>
      </p>
    </section>
  )
}
