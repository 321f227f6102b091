import { onlineManager } from '@tanstack/react-query'
import { useSyncExternalStore } from 'react'

/*
 * Whether the server is there. A browser knows only of the network, but the server may be stopped on a machine that is
 * online, and answer on one that is not: so this is told by what requests find, and asked for again until it answers.
 */

const FIRST = 1000
const LONGEST = 5000

let wait = FIRST
let timer: ReturnType<typeof setTimeout> | undefined

onlineManager.setEventListener(() => undefined)
onlineManager.setOnline(true)

/** A request found nobody. */
export function lost() {
  onlineManager.setOnline(false)
  if (timer === undefined) ask()
}

/** A request was answered, with whatever. */
export function reached() {
  clearTimeout(timer)
  timer = undefined
  wait = FIRST
  if (!onlineManager.isOnline()) onlineManager.setOnline(true)
}

/** Does something whenever somebody answers again. */
export const onReached = (act: () => void): (() => void) => onlineManager.subscribe((there) => there && act())

function ask() {
  timer = setTimeout(() => {
    fetch('/api/health', { cache: 'no-store' }).then(reached, () => {
      wait = Math.min(LONGEST, wait * 1.5)
      ask()
    })
  }, wait)
}

export const useReachable = (): boolean =>
  useSyncExternalStore(
    (changed) => onlineManager.subscribe(changed),
    () => onlineManager.isOnline(),
  )
