import { createRequire } from 'node:module'
import { classOf, expect, test } from './studio'

const require = createRequire(import.meta.url)
const { WebVTTParser } = require('webvtt-parser') as {
  WebVTTParser: new () => {
    parse: (
      text: string,
      mode: string,
    ) => { errors: unknown[]; cues: { startTime: number; endTime: number; text: string }[] }
  }
}
const { WaveFile } = require('wavefile') as {
  WaveFile: new (bytes: Uint8Array) => {
    fmt: { sampleRate: number; bitsPerSample: number; numChannels: number }
    getSamples: () => Float64Array
  }
}

/** Checked by independent readers: webvtt-parser (W3C) and wavefile. */
test('captions and bells are where the class has them', async ({ sharedDemo }) => {
  const id = (await classOf(sharedDemo, 'Full moon circuit')).split('/').at(-1)!
  const get = async (path: string) => fetch(`${sharedDemo.address}/api/classes/${id}${path}`)
  const { evaluation } = (await (await get('')).json()) as {
    evaluation: { totals: { seconds: number }; spans: { start: number; end: number; kind: string }[] }
  }

  const track = new WebVTTParser().parse(await (await get('/cues.vtt')).text(), 'metadata')
  expect(track.errors).toEqual([])
  expect(track.cues.map((c) => [c.startTime, c.endTime])).toEqual(evaluation.spans.map((s) => [s.start, s.end]))
  expect(track.cues[4]!.text).toContain('Sit-to-stand, 45 s')

  const wav = new WaveFile(new Uint8Array(await (await get('/bells.wav')).arrayBuffer()))
  expect(wav.fmt).toMatchObject({ sampleRate: 8000, bitsPerSample: 8, numChannels: 1 })
  const samples = wav.getSamples()
  expect(samples).toHaveLength((evaluation.totals.seconds + 2) * 8000)
  const loud = (from: number, to: number) =>
    samples.slice(from * 8000, to * 8000).reduce((most, s) => Math.max(most, Math.abs(s - 128)), 0)
  for (const work of evaluation.spans.filter((s) => s.kind === 'work'))
    expect(loud(work.start, work.start + 0.1)).toBeGreaterThan(40)
  expect(loud(20, 40)).toBe(0)
})
