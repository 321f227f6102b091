import { useState } from 'react'
import type { Clock } from '../../leading/useClock'
import type { Lead } from '../../leading/useLead'
import { spoken } from '../../ui/time'

const words: Partial<Record<Lead['commands'][number]['kind'], string>> = {
  addTen: 'Ten seconds more',
  lessTen: 'Ten seconds less',
  resume: 'Goes on',
  pause: 'Paused',
  adjust: 'Changed',
  jump: 'Gone to',
  back: 'Back',
}

/** What a screen reader says of the last tap, here or elsewhere: what it did, and to what. */
export function useAnnounced(lead: Lead, clock: Clock): string {
  const { length } = lead.commands
  const [said, setSaid] = useState({ length, words: '' })
  if (said.length !== length) {
    const last = lead.commands.at(-1)
    const did = last && words[last.kind]
    setSaid({
      length,
      words: did
        ? `${did}: ${clock.scene.headline}, ${spoken(clock.left)} to go; the class ends in ${spoken((clock.end - clock.position) / 1000)}`
        : '',
    })
  }
  return said.words
}
