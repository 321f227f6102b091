import { existsSync, mkdirSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Server } from './studio'
import { classOf, expect, test } from './studio'

interface Summary {
  title: string
  booking: { startsAt: string; zone: string }
}

/** A list of the desk for the session of this class, as a file in its folder. */
async function drop(server: Server, title: string, sequence: number, attendees: string[]) {
  const { sessions } = (await (await fetch(`${server.address}/api/sessions`)).json()) as { sessions: Summary[] }
  const { startsAt, zone } = sessions.find((s) => s.title === title)!.booking
  const stamp = startsAt.replace(/[-:]/g, '').slice(0, 13)
  const folder = join(server.folder, 'desk')
  mkdirSync(folder, { recursive: true })
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//A desk//EN',
    'METHOD:REQUEST',
    'BEGIN:VEVENT',
    'UID:moon@desk.example',
    `SEQUENCE:${sequence}`,
    'DTSTAMP:20261120T120000Z',
    `DTSTART;TZID=${zone}:${stamp}00`,
    `SUMMARY:${title}`,
    ...attendees.map((a) => `ATTENDEE;${a}:mailto:${a.split('CN=')[1]!.replaceAll(' ', '.')}@desk.example`),
    'END:VEVENT',
    'END:VCALENDAR',
  ]
  writeFileSync(join(folder, 'moon.part'), lines.join('\r\n') + '\r\n')
  renameSync(join(folder, 'moon.part'), join(folder, 'moon.ics'))
}

test('the desk is followed in an open brief, a name that nobody has is asked about, and undo takes no booking away', async ({
  page,
  demo,
}) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/brief`)
  await expect(page.getByText('14 by name')).toBeVisible()
  const card = page.getByRole('region', { name: 'Booking desk' })
  await expect(card).toHaveCount(0)
  await page.getByLabel('Cue of the day').fill('soft knees')

  // Two of fourteen cancel, one whom nobody knows books.
  await drop(demo, 'Full moon circuit', 1, [
    'PARTSTAT=DECLINED;CN=Mira Stout',
    'PARTSTAT=TENTATIVE;CN=Nils Ebb',
    'PARTSTAT=ACCEPTED;CN=Wren Alder',
  ])
  await expect(card).toContainText('1 booked · on the waiting list: Nils Ebb · cancelled: Mira Stout')
  await expect(page.getByText('12 by name, 1 more without a name')).toBeVisible()
  await expect(page.getByLabel('How many people')).toHaveValue('13')

  await card.getByRole('button', { name: 'Add as a new person' }).click()
  await expect(card.getByText('Who is Wren Alder?')).toHaveCount(0)
  await expect(page.getByText('13 by name')).toBeVisible()

  // The step that was made here goes; what the desk said stays, here and after a reload.
  await page.getByRole('heading', { name: 'Full moon circuit' }).click()
  await page.keyboard.press('Control+z')
  await expect(page.getByLabel('Cue of the day')).not.toHaveValue('soft knees')
  await expect(page.getByText('13 by name')).toBeVisible()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByText('13 by name')).toBeVisible()
  await page.getByRole('button', { name: 'Who is coming' }).click()
  const expected = page.getByRole('group', { name: 'Expected' })
  await expect(expected.getByLabel('Wren Alder')).toBeChecked()
  await expect(expected.getByLabel('Mira Stout')).not.toBeChecked()

  // The desk speaks in the very moment in which a time is typed: both count, and nobody is asked to choose.
  await page.route('**/api/desk', (route) => route.abort())
  await drop(demo, 'Full moon circuit', 2, ['PARTSTAT=ACCEPTED;CN=Wren Alder', 'PARTSTAT=ACCEPTED;CN=Mira Stout'])
  await expect.poll(() => existsSync(join(demo.folder, 'desk', 'moon.ics'))).toBe(false)
  await page.getByLabel('Starts at').fill('18:45')
  await expect(expected.getByLabel('Mira Stout')).toBeChecked()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Starts at')).toHaveValue('18:45')
  await expect(page.getByText('14 by name')).toBeVisible()
})

test('the simulated desk is switched on in the demo, and a file that cannot be read is said', async ({
  page,
  demo,
  studio,
}) => {
  await page.goto(`${demo.address}/people`)
  await page.getByRole('button', { name: 'Import or export people' }).click()
  await page.getByRole('menuitem', { name: 'Booking desk…' }).click()
  await expect(page.getByText('No bookings yet.')).toBeVisible()
  await page.getByLabel('Try it: simulate bookings for the next class').check()
  const card = page.getByRole('region', { name: 'Six around the loft' })
  await expect(card).toContainText('12 booked · on the waiting list: Mira Stout, Nils Ebb')
  await expect(card.getByText('Who is Wren Alder?')).toBeVisible({ timeout: 20_000 })
  await card.getByLabel('Who Wren Alder is').selectOption({ label: 'Nils Ebb' })
  await expect(card.getByText('Who is Wren Alder?')).toHaveCount(0)
  await page.getByLabel('Try it: simulate bookings for the next class').uncheck()
  await card.getByRole('button', { name: 'Wrong class' }).click()
  await card.getByLabel('Which class is Six around the loft').selectOption({ index: 1 })
  await expect(card.getByRole('link', { name: 'Open class' })).toBeVisible()

  // Outside the demo there is no stand-in.
  mkdirSync(join(studio.folder, 'desk'), { recursive: true })
  writeFileSync(join(studio.folder, 'desk', 'notes.ics'), 'milk, bread')
  await page.goto(`${studio.address}/people/desk`)
  await expect(page.getByRole('alert')).toContainText('notes.ics: It is not a calendar file (.ics).')
  await expect(page.getByLabel('Try it: simulate bookings for the next class')).toHaveCount(0)
})
