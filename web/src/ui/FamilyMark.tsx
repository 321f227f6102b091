import type { Family } from '../api/client'

/** Our marks: a wedge, a stride, a folded angle, an arch, and plain ones for what stands around. Shape first, hue second. */
const shapes: Record<Family, string> = {
  squat: 'M3 5 H17 L10 16 Z',
  lunge: 'M10 3 V7 L4 16 M10 7 L16 11 V16',
  hinge: 'M5 17 V5 L16 12',
  bridge: 'M3 16 C3 3 17 3 17 16',
  activation: 'M4 10 H16 M10 4 V16',
  recovery: 'M3 10 C6 4 8 16 11 10 S16 4 17 10',
  core: 'M4 6 H16 V14 H4 Z',
  stretch: 'M3 10 H17 M3 6 V14 M17 6 V14',
}

const names: Record<Family, string> = {
  squat: 'Squat',
  lunge: 'Lunge',
  hinge: 'Hinge',
  bridge: 'Bridge',
  activation: 'Activation',
  recovery: 'Active recovery',
  core: 'Core and upper body',
  stretch: 'Stretch',
}

export function FamilyMark({ family, size = 20 }: { family: Family; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      role="img"
      aria-label={`${names[family]} family`}
      style={{ flex: 'none', color: `var(--${family}, var(--other))` }}
    >
      <path
        d={shapes[family]}
        fill={family === 'squat' ? 'currentColor' : 'none'}
        stroke="currentColor"
        strokeWidth="2.6"
        strokeLinejoin="round"
        strokeLinecap="round"
      />
    </svg>
  )
}
