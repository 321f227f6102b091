import { useDebouncedValue } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { useStore } from 'zustand'
import type { Booking, Evaluation, Plan, Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import type { Looker } from './Looker'
import { heldAs } from './Looker'

export type Finding = Evaluation['findings'][number]
export type Offer = Schemas['RepairOffer']

/** Findings settle this long after the last key. */
const SETTLES = 300

export interface Checks {
  findings: Finding[]
  offers: Offer[]
  /** So many ways to fix something were not tried for want of time. */
  untried: number
  /** Whether it is ready, as last answered; null while that is not known. */
  ready: boolean | null
  /** It is ready, all of it is known, and the booked time is used. */
  sure: boolean
  hardest: Schemas['HardestMoment'] | null
  /** The findings and the offers are those of the class as it stands on the screen. */
  fresh: boolean
  /** Why nothing is known of people, kit, room and weeks; empty. */
  trouble: string
}

/** What the checks say of a class and its session. Until the first answer: of the class alone. */
export function useChecks(looker: Looker, plan: Plan, booking: Booking | null): Checks {
  const known = useStore(looker.store)
  const { checks, offers } = known
  const held = useMemo(() => heldAs(booking), [booking])
  // An older answer stands until the newer one is there: what is said of the class itself never goes back behind what was known.
  const current = checks !== null && checks.plan === plan && checks.held === held
  const ofClass = useDebouncedValue(known.evaluation, SETTLES)[0]?.findings ?? []
  const settled = useDebouncedValue(checks, SETTLES)[0]
  const findings =
    current && settled === checks
      ? checks.found.findings
      : [...ofClass, ...(checks?.found.findings ?? []).filter((f) => f.ofSession)]
  return {
    findings,
    offers: offers?.list ?? [],
    untried: offers?.untried ?? 0,
    ready: known.trouble !== '' ? null : (checks?.found.ready ?? null),
    sure: checks?.found.sure ?? false,
    hardest: checks?.found.hardest ?? null,
    trouble: known.trouble,
    fresh: offers !== null && offers.plan === plan && offers.held === held && known.faults.length === 0,
  }
}

/** The rules, with what is well, why, by which source, and what others do. */
export function useRules() {
  return useQuery({ queryKey: ['rules'], queryFn: () => answer(api.GET('/api/checks')), staleTime: Infinity })
}
