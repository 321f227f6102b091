/*
 * The time of a class under way. It is taken from the server once, and from then on runs on the monotonic clock: a wall
 * clock that is set while the class runs neither stops it nor repeats a part of it.
 */

let offset = Date.now() - performance.now()

/** Milliseconds since 1970, as the class has them. */
export const steadyNow = (): number => Math.round(offset + performance.now())

/** Sets the time of the class to what the server says it is. */
export function anchor(now: number) {
  offset = now - performance.now()
}
