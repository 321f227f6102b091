/** All is put on its clock beforehand, so that the largest buffers do: a busy machine then misses no beat. */
export const newContext = () => new AudioContext({ latencyHint: 'playback' })

/** Readings count for so long, in milliseconds: a device that missed a beat is soon found out, and two crystals never part. */
const COUNTS = 1200
/** Where a hidden tab takes fewer, the last ones count however old. */
const LEAST = 5
const EVERY = 50

/**
 * Where a moment of the class lies on the clock of the sound: what is put there is heard then, through whatever buffers lie between. A
 * reading is never ahead of the truth, but may be late; the earliest of the last few is the truest.
 */
export class AudioClock {
  private readings: { taken: number; reading: number }[] = []
  private readonly timer: ReturnType<typeof setInterval>

  /** @param now milliseconds since 1970, as the class has them, with their fractions */
  constructor(
    private readonly context: AudioContext,
    private readonly now: () => number,
  ) {
    this.look()
    this.timer = setInterval(() => this.look(), EVERY)
  }

  close() {
    clearInterval(this.timer)
  }

  /** Seconds of the context at which to begin what is to be heard at this moment of the class; not before now. */
  at(moment: number): number {
    this.look()
    const truest = Math.max(...this.readings.map((r) => r.reading))
    return Math.max(this.context.currentTime, (performance.now() + moment - this.now() + truest) / 1000)
  }

  private look() {
    const taken = performance.now()
    this.readings.push({ taken, reading: this.heardNow(taken) - taken })
    while (this.readings.length > LEAST && this.readings[0]!.taken < taken - COUNTS) this.readings.shift()
  }

  /** Milliseconds on the context's clock of what is heard just now; where the browser does not say, by what it gives as its latency. */
  private heardNow(now: number): number {
    const { contextTime = 0, performanceTime = 0 } = this.context.getOutputTimestamp()
    return contextTime > 0 && performanceTime > 0
      ? contextTime * 1000 + now - performanceTime
      : (this.context.currentTime - (this.context.outputLatency || 0)) * 1000
  }
}
