import { useEffect, useState } from 'react'
import { steadyNow } from './steady'

/** The moment of the class, in milliseconds since 1970, a few times a second while something is running. */
export function useNow(running: boolean): number {
  const [now, setNow] = useState(steadyNow)
  useEffect(() => {
    if (!running) return
    const timer = setInterval(() => setNow(steadyNow()), 100)
    return () => clearInterval(timer)
  }, [running])
  return now
}

/** The moment once a second, also while the class stands. */
export function useMoment(): number {
  const [now, setNow] = useState(steadyNow)
  useEffect(() => {
    const timer = setInterval(() => setNow(steadyNow()), 1000)
    return () => clearInterval(timer)
  }, [])
  return now
}

/** Keeps the screen lit while a class runs, where the browser can. */
export function useWakeLock(running: boolean) {
  useEffect(() => {
    if (!running || !('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | null = null
    let stopped = false
    const take = () => {
      if (document.visibilityState !== 'visible') return
      navigator.wakeLock.request('screen').then(
        (got) => {
          if (stopped) void got.release()
          else lock = got
        },
        () => undefined,
      )
    }
    take()
    document.addEventListener('visibilitychange', take)
    return () => {
      stopped = true
      document.removeEventListener('visibilitychange', take)
      void lock?.release()
    }
  }, [running])
}
