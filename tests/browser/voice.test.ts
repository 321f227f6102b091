import { expect, test } from './studio'
import { classOf } from './studio'

/** A tone of a fifth of a second: RIFF, PCM, 8 kHz, 8 bit, mono. */
function tone(): Buffer {
  const samples = 1600
  const wav = Buffer.alloc(44 + samples, 128)
  wav.write('RIFF', 0)
  wav.writeUInt32LE(36 + samples, 4)
  wav.write('WAVEfmt ', 8)
  wav.writeUInt32LE(16, 16)
  wav.writeUInt16LE(1, 20)
  wav.writeUInt16LE(1, 22)
  wav.writeUInt32LE(8000, 24)
  wav.writeUInt32LE(8000, 28)
  wav.writeUInt16LE(1, 32)
  wav.writeUInt16LE(8, 34)
  wav.write('data', 36)
  wav.writeUInt32LE(samples, 40)
  for (let i = 0; i < samples; i++) wav[44 + i] = 128 + Math.round(80 * Math.sin(i / 3))
  return wav
}

/** Keeps count of what is really played, and of what the page was not let do. */
const listen = () => {
  const heard = { played: 0, refused: [] as string[], rates: [] as number[] }
  Object.assign(window, { heard })
  const play = HTMLMediaElement.prototype.play
  HTMLMediaElement.prototype.play = function () {
    return play.call(this).then(() => {
      heard.played++
      heard.rates.push(this.playbackRate)
    })
  }
  document.addEventListener('securitypolicyviolation', (event) => heard.refused.push(event.violatedDirective))
}

interface Heard {
  played: number
  refused: string[]
  rates: number[]
}

test('clips that were recorded are kept with the data, speak on another screen, and a file of one’s own goes with the beat', async ({
  page,
  demo,
}) => {
  const heard = () => page.evaluate(() => (window as unknown as { heard: Heard }).heard)
  await page.addInitScript(listen)
  for (const word of ['left', 'switch'])
    await fetch(`${demo.address}/api/clips/${word}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'audio/wav' },
      body: new Uint8Array(tone()),
    })
  const wrong = await fetch(`${demo.address}/api/clips/left`, {
    method: 'PUT',
    headers: { 'Content-Type': 'text/html' },
    body: '<script>1</script>',
  })
  expect(wrong.status).toBe(422)

  // This browser has recorded nothing: it has them from the data.
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/lead`)
  await page.getByRole('button', { name: 'Voice' }).click()
  const sheet = page.getByRole('dialog', { name: 'Voice and beat' })
  await expect(sheet.getByTestId('no-voice')).toContainText('Your recordings are used: 2 of 31.')
  await sheet.getByRole('button', { name: 'Test the voice' }).click()
  // Switch, then left; "right" was never recorded.
  await expect.poll(async () => (await heard()).played).toBe(2)

  await sheet.getByLabel('A small rhythm under it, at').check()
  await sheet.getByLabel('Use your own music file').setInputFiles({
    name: 'notes.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('no music'),
  })
  await expect(sheet.getByRole('alert')).toHaveText('This browser cannot play notes.txt.')
  await sheet.getByLabel('Use your own music file').setInputFiles({
    name: 'loop.wav',
    mimeType: 'audio/wav',
    buffer: tone(),
  })
  const tap = sheet.getByRole('button', { name: 'Tap the beat' })
  await expect(sheet.getByText('Tap four times or more')).toBeVisible()
  for (let i = 0; i < 5; i++) {
    await tap.click()
    await page.waitForTimeout(450)
  }
  const said = sheet.getByText(/^\d+ beats per minute, played/)
  await expect(said).toBeVisible()
  const own = Number(/\d+/.exec((await said.textContent())!)![0])
  // Five taps half a second apart, and what the machine takes for each.
  expect(own).toBeGreaterThan(60)
  expect(own).toBeLessThan(134)
  await sheet.getByLabel('Beats a minute').fill('90')
  await sheet.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('button', { name: 'Start the class' }).click()
  await expect.poll(async () => (await heard()).rates.at(-1)).toBeCloseTo(Math.max(0.7, Math.min(1.4, 90 / own)), 2)
  await page.keyboard.press('Space')
  await expect(page.getByText('Paused', { exact: true })).toBeVisible()
  expect((await heard()).refused).toEqual([])
})
