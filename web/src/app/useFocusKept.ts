import { useEffect } from 'react'

/** What can have the focus by Tab. */
const TABBABLE =
  'a[href], button:not([disabled]), input:not([disabled]), select:not([disabled]), textarea:not([disabled]), [tabindex="0"]'

/** Windows give the focus back by themselves, and screens that know better put it where it belongs; only then is it looked after. */
const WAIT = 120

const usable = (element: Element) =>
  element.isConnected && !element.matches(':disabled') && element.getClientRects().length > 0

/** What stands nearest after a place that is gone, inside what is left of its surroundings; else the surroundings themselves. */
function nearest(around: Element, place: number): HTMLElement | null {
  const all = [...around.querySelectorAll<HTMLElement>(TABBABLE)].filter(usable)
  return all[Math.min(place, all.length - 1)] ?? null
}

interface Last {
  element: Element
  /** From the inside out, each with how many stood before it there. */
  around: { parent: Element; place: number }[]
}

function remembered(element: Element): Last {
  const around: Last['around'] = []
  for (let parent = element.parentElement; parent && parent !== document.body; parent = parent.parentElement) {
    const all = [...parent.querySelectorAll(TABBABLE)]
    around.push({ parent, place: Math.max(0, all.indexOf(element)) })
    if (parent.tagName === 'MAIN') break
  }
  return { element, around }
}

/**
 * Keeps the focus on the screen: where what had it is taken away or can no longer be pressed, what stands nearest has it, and on
 * another screen its main part. Keys would else go to the page behind, and Tab begin anew at its top.
 */
export function useFocusKept() {
  useEffect(() => {
    let last: Last | null = null
    let timer: ReturnType<typeof setTimeout> | undefined
    const look = () => {
      timer = undefined
      if (document.activeElement !== document.body || !last || usable(last.element)) return
      if (document.querySelector('[role=dialog]')) return
      const left = last.around.find(({ parent }) => parent.isConnected)
      const to =
        (left && (nearest(left.parent, left.place) ?? (left.parent as HTMLElement))) ??
        document.querySelector<HTMLElement>('main')
      // The next screen may still be on its way: then it is looked for again.
      if (!to) return
      last = null
      if (!to.matches(TABBABLE) && !to.hasAttribute('tabindex')) to.setAttribute('tabindex', '-1')
      to.focus({ preventScroll: true })
    }
    const wait = () => {
      if (document.activeElement !== document.body || !last || timer !== undefined) return
      timer = setTimeout(look, WAIT)
    }
    const note = (event: FocusEvent) => {
      if (event.target instanceof Element && event.target !== document.body) last = remembered(event.target)
    }
    const watch = new MutationObserver(wait)
    watch.observe(document.body, {
      childList: true,
      subtree: true,
      attributes: true,
      attributeFilter: ['disabled', 'hidden'],
    })
    document.addEventListener('focusin', note)
    return () => {
      clearTimeout(timer)
      watch.disconnect()
      document.removeEventListener('focusin', note)
    }
  }, [])
}
