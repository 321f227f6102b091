import type { Family } from '../api/client'

/** Our four marks: a wedge, a stride, a folded angle, an arch. Shape first, hue second. */
const shapes: Record<Family, string> = {
  squat: 'M3 5 H17 L10 16 Z',
  lunge: 'M10 3 V7 L4 16 M10 7 L16 11 V16',
  hinge: 'M5 17 V5 L16 12',
  bridge: 'M3 16 C3 3 17 3 17 16',
}

const names: Record<Family, string> = { squat: 'Squat', lunge: 'Lunge', hinge: 'Hinge', bridge: 'Bridge' }

export function FamilyMark({ family, size = 20 }: { family: Family; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      role="img"
      aria-label={`${names[family]} family`}
      style={{ flex: 'none', color: `var(--${family})` }}
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
