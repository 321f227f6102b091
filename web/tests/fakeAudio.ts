/** An audio context that makes no sound and remembers what would have been heard, by the browser's own clock. */
export class FakeAudio {
  readonly heard: { pitch: number; at: number }[] = []
  readonly destination = {}
  state = 'running'
  /** Milliseconds from what is put on the clock to what is heard. */
  constructor(readonly latency = 0) {}

  get currentTime() {
    return performance.now() / 1000
  }

  getOutputTimestamp() {
    return { contextTime: (performance.now() - this.latency) / 1000, performanceTime: performance.now() }
  }

  createGain() {
    const param = { setValueAtTime: () => param, exponentialRampToValueAtTime: () => param }
    return { gain: param, connect: (to: unknown) => to }
  }

  createOscillator() {
    const { heard, latency } = this
    const sound = { pitch: 0, at: Infinity }
    return {
      frequency: {
        set value(pitch: number) {
          sound.pitch = pitch
        },
      },
      connect: (to: unknown) => to,
      start(at: number) {
        sound.at = at * 1000 + latency
        heard.push(sound)
      },
      stop(at?: number) {
        // Taken back before it began.
        if (at === undefined && performance.now() < sound.at - latency) heard.splice(heard.indexOf(sound), 1)
      },
    }
  }
}
