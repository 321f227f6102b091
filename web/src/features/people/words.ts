import type { Schemas } from '../../api/client'

export type Person = Schemas['Person']
export type PersonLimit = Schemas['PersonLimit']
export type Tier = Schemas['Tier']

/** The families that have a level of their own. */
export const levelled = ['squat', 'lunge', 'hinge', 'bridge'] as const

export const tiers: { value: Tier; label: string }[] = [
  { value: 'easier', label: 'the easier option' },
  { value: 'main', label: 'the main option' },
  { value: 'harder', label: 'the harder option' },
]

export const limits: { value: PersonLimit['limit']; label: string }[] = [
  { value: 'knee', label: 'knee' },
  { value: 'lowerBack', label: 'lower back' },
  { value: 'balance', label: 'balance' },
  { value: 'pregnancy', label: 'pregnancy' },
  { value: 'ankle', label: 'ankle' },
  { value: 'wrist', label: 'wrist' },
  { value: 'hip', label: 'hip' },
  { value: 'neck', label: 'neck' },
  { value: 'shoulder', label: 'shoulder' },
  { value: 'pelvicFloor', label: 'pelvic floor, after birth' },
]

export const ticks: { value: Schemas['Tick']; label: string }[] = [
  { value: 'hinge', label: 'clean hinge, back stays long' },
  { value: 'split', label: 'ten split squats hands-free' },
  { value: 'step', label: 'steady reverse lunges' },
  { value: 'land', label: 'quiet landings' },
  { value: 'load', label: '8–12 clean reps without weight' },
]

/** What they usually do, in a few words. */
export function usually(person: Person): string {
  const all = levelled.map((family) => person.level?.[family] ?? 'main')
  return all.every((tier) => tier === all[0])
    ? `usually ${tiers.find((t) => t.value === all[0])!.label}`
    : levelled.map((family, i) => `${family} ${all[i]}`).join(', ')
}

/** Whether a limit has run out: it asks to be renewed or ended. */
export function ranOut(limit: PersonLimit): boolean {
  const now = new Date()
  // The day where this screen stands, written as the limit's is.
  const today = new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
  return limit.until != null && limit.until < today
}

/** What everyone should hear before they join. */
export const cautions = [
  'See a doctor or a midwife before you start if you are unsure, after an operation, or when you are pregnant.',
  'If you feel pain, dizziness, chest discomfort or unusual breathlessness, stop and tell the instructor.',
  'Everything said in class is an offer. Take the easier option, a rest or a sip of water whenever you like.',
  'Tell the instructor what has changed since last time. It is used for planning only, never shown on a wall, ' +
    'card or list, and you can have a copy or have it erased at any time.',
  'Your doctor, midwife or physiotherapist, and the venue’s rules, come first.',
]
