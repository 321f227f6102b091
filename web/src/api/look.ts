import { lost, reached } from './connection'
import { noteTrouble } from './trouble'
import type { Problem, Schemas } from './client'
import { Refused, Unreachable } from './client'

export type LookPart = Schemas['LookPart']

/** What there is to know of a class: each part as soon as it is known, in one answer. */
export async function look(
  body: Schemas['LookRequest'],
  signal: AbortSignal,
  each: (part: LookPart) => void,
): Promise<void> {
  const response = await send(body, signal)
  reached()
  if (!response.ok || !response.body) {
    const problem = (await response.json().catch(() => ({}))) as Problem
    noteTrouble(problem.trouble)
    throw new Refused(response.status, problem)
  }
  const lines = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await lines.read().catch((error: unknown) => {
      if (signal.aborted) throw error
      throw new Unreachable()
    })
    if (done) return
    const parts = (rest + value).split('\n')
    rest = parts.pop()!
    for (const part of parts) each(JSON.parse(part) as LookPart)
  }
}

async function send(body: unknown, signal: AbortSignal): Promise<Response> {
  try {
    return await fetch('/api/plans/look', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
      signal,
    })
  } catch (error) {
    if (signal.aborted) throw error
    lost()
    throw new Unreachable()
  }
}
