import type { Family } from '../api/client'
import css from './Tape.module.css'
import { clock, spoken } from './time'

export interface TapeSpan {
  start: number
  end: number
  kind: 'leadIn' | 'work' | 'switch' | 'change' | 'rest' | 'wait' | 'talk'
  side?: string | null
  /** One, or one for each station that is worked at once. */
  families?: Family[]
}

export interface TapeBlock {
  name: string
  start: number
  end: number
}

interface Props {
  spans: TapeSpan[]
  blocks: TapeBlock[]
  /** Booked seconds. */
  slot: number
  /** Where the class is now, in seconds. */
  now?: number
  dark?: boolean
  onBlock?: (index: number) => void
}

const HEIGHT = 64

/** The class to scale: a measuring tape with the booked slot marked on it. */
export function Tape({ spans, blocks, slot, now, dark, onBlock }: Props) {
  const length = spans.at(-1)?.end ?? 0
  const axis = Math.max(length, slot)
  const at = (seconds: number) => `${(100 * seconds) / axis}%`
  const minutes = Array.from({ length: Math.floor(axis / 60) + 1 }, (_, i) => i)
  const labelEvery = [1, 2, 5, 10, 15, 30, 60, 120].find((step) => axis / 60 / step <= 14) ?? 240

  return (
    <div className={`${css.tape} ${dark ? css.dark : ''}`} data-testid="tape">
      <div className={css.blocks} aria-hidden={onBlock ? undefined : true}>
        {blocks.map((block, i) => (
          <button
            key={i}
            type="button"
            className={css.block}
            style={{ left: at(block.start), width: at(block.end - block.start) }}
            title={`${block.name}, ${clock(block.end - block.start)}`}
            aria-label={`Go to ${block.name}, ${spoken(block.end - block.start)}`}
            tabIndex={onBlock ? 0 : -1}
            onClick={() => onBlock?.(i)}
          >
            {block.name}
          </button>
        ))}
      </div>
      <svg className={css.band} viewBox={`0 0 ${axis} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden="true">
        <defs>
          <pattern
            id="hatch"
            width={axis / 170}
            height="8"
            patternUnits="userSpaceOnUse"
            patternTransform={`skewX(${-Math.min(80, (Math.atan(axis / 170 / 8) * 180) / Math.PI)})`}
          >
            <rect width={axis / 640} height="8" fill="#8a6a1c" opacity="0.75" />
          </pattern>
        </defs>
        <rect className={css.cloth} x="0" y="0" width={Math.min(length, slot)} height={HEIGHT} />
        {length < slot && <rect className={css.idle} x={length} y="1" width={slot - length} height={HEIGHT - 2} />}
        {length > slot && <rect className={css.beyond} x={slot} y="0" width={length - slot} height={HEIGHT} />}
        {spans.map((span, i) => (
          <Shape key={i} span={span} />
        ))}
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
      <div className={css.scale} aria-hidden="true">
        {minutes
          .filter((m) => m % labelEvery === 0 && Math.abs(m * 60 - slot) > axis * 0.035 && m * 60 < axis * 0.985)
          .map((minute) => (
            <span key={minute} className={css.minute} style={{ left: at(minute * 60) }}>
              {minute}
            </span>
          ))}
      </div>
      <div className={css.slot} style={{ left: `calc(${at(slot)} - 3px)` }} aria-hidden="true">
        <span className={css.slotLabel}>booked {slot / 60} min</span>
      </div>
      {now !== undefined && <div className={css.now} style={{ left: at(Math.min(now, axis)) }} aria-hidden="true" />}
      <ol className="hidden">
        {blocks.map((block, i) => (
          <li key={i}>
            {block.name}: {spoken(block.end - block.start)}, from {spoken(block.start)}
          </li>
        ))}
      </ol>
    </div>
  )
}

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
    default:
      return null
  }
}
