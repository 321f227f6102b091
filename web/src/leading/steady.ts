/*
 * The time of a class under way. It is the server's, and runs on the monotonic clock between two signs of it: a wall clock that
 * is set while the class runs neither stops it nor repeats a part of it.
 */

let offset = Date.now() - performance.now()

/** Milliseconds since 1970, as the class has them, with their fractions: for sound. */
export const exactNow = (): number => offset + performance.now()

/** Milliseconds since 1970, as the class has them. */
export const steadyNow = (): number => Math.round(exactNow())

/** Sets the time of the class to what the server says it is. */
export function anchor(now: number) {
  offset = now - performance.now()
  heard.length = 0
}

/** Signs of the server's time that were heard last, as offsets. Each is late by what it took to come, so the largest is the truest. */
const heard: number[] = []
const REMEMBERED = 12
/** Up to so far off in milliseconds is how clocks are; it is not mended. */
const CLOSE = 8
/** Further off is no drift: one of the two slept. */
const FAR = 400

/** Another sign of the server's time. Two clocks that drift apart are brought together without a step that could be seen. */
export function heed(now: number) {
  heard.push(now - performance.now())
  if (heard.length > REMEMBERED) heard.shift()
  const apart = Math.max(...heard) - offset
  if (apart > FAR || (apart < -FAR && heard.length === REMEMBERED)) anchor(now)
  else if (Math.abs(apart) > CLOSE) offset += apart > 0 ? Math.min(apart, 40) : Math.max(apart, -5)
}

/** How far this screen's own clock is from the server's, in milliseconds, as it was heard last. */
export const apart = (): number => (heard.length === 0 ? 0 : Math.round(Math.max(...heard) - offset))
