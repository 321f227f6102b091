/** Seconds as a clock shows them: 75 becomes "1:15". */
export function clock(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds))
  const rest = String(whole % 60).padStart(2, '0')
  const minutes = Math.floor(whole / 60)
  return minutes < 60
    ? `${minutes}:${rest}`
    : `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}:${rest}`
}

/** Seconds as they are read aloud: "1 minute 15 seconds". */
export function spoken(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds))
  const part = (n: number, word: string) => (n === 0 ? '' : `${n} ${word}${n === 1 ? '' : 's'}`)
  return (
    [part(Math.floor(whole / 60), 'minute'), part(whole % 60, 'second')].filter((p) => p !== '').join(' ') ||
    '0 seconds'
  )
}

/** A booked start, such as "Tue 24 Nov, 18:00". */
export function dayAndTime(startsAt: string | null | undefined, format: ClockFormat = 'h24'): string {
  if (!startsAt) return 'No date yet'
  const date = new Date(startsAt.slice(0, 16))
  const day = date.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
  const time = date.toLocaleTimeString('en-GB', {
    hour: format === 'h12' ? 'numeric' : '2-digit',
    minute: '2-digit',
    hour12: format === 'h12',
  })
  return `${day}, ${time}`
}

/** A day as it is said: "31 January 2020". */
export const dayWords = (day: string): string =>
  new Date(`${day}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })

export type ClockFormat = 'h24' | 'h12'

/** The time of day at a moment, in milliseconds since 1970, where this screen stands. */
export const timeAt = (moment: number, format: ClockFormat): string =>
  new Date(moment).toLocaleTimeString('en-GB', {
    hour: format === 'h12' ? 'numeric' : '2-digit',
    minute: '2-digit',
    hour12: format === 'h12',
  })

/** The time of day so many seconds after a booked start such as 2026-11-24T18:00; null without one. */
export function timeOfDay(startsAt: string | null | undefined, seconds: number, format: ClockFormat): string | null {
  if (!startsAt) return null
  const time = new Date(new Date(`${startsAt.slice(0, 16)}:00Z`).getTime() + seconds * 1000)
  return time.toLocaleTimeString('en-GB', {
    timeZone: 'UTC',
    hour: format === 'h12' ? 'numeric' : '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hour12: format === 'h12',
  })
}
