import createClient from 'openapi-fetch'
import { lost, reached } from './connection'
import { noteTrouble } from './trouble'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Plan = Schemas['ClassPlan']
export type PlanBlock = Schemas['PlanBlock']
export type PlanStation = Schemas['PlanStation']
export type PlanOption = Schemas['PlanOption']
export type PlanPart = Schemas['PlanPart']
export type Booking = Schemas['Booking']
export type Session = Schemas['SessionView']
export type Evaluation = Schemas['Evaluation']
export type Fault = Schemas['PlanFault']
export type Family = Schemas['Family']
export type Move = Schemas['Move']
export type ClassView = Schemas['ClassView']

export const api = createClient<paths>({ baseUrl: '' })

export interface Problem {
  title?: string | null
  detail?: string | null
  errors?: Fault[]
  /** What stands there now, where somebody else changed it meanwhile. */
  current?: unknown
  commands?: unknown
  /** Where that differs from what was sent. */
  differences?: Schemas['Difference'][]
  /** The data itself cannot be opened. */
  trouble?: Schemas['DataTroubleView']
  open?: { session: string; lead: string }
  at?: number
}

/** What the server said no to: problem details (RFC 9457) with whatever it adds. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.title ?? 'That could not be done. Try again.')
  }

  /** The first fault in words, with what would be right; else the detail; else the title. */
  get words(): string {
    const fault = this.problem.errors?.[0]
    return fault ? `${fault.detail} Should be: ${fault.right}.` : (this.problem.detail ?? this.message)
  }
}

/** Nobody answered: the server is not there, or the way to it is cut. */
export class Unreachable extends Error {
  constructor() {
    super('Halterion is not answering.')
  }
}

/** The data of an answer; throws what the server refused, or that it could not be reached. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result
  try {
    result = await call
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    lost()
    throw new Unreachable()
  }
  reached()
  noteTrouble((result.error as Problem | undefined)?.trouble)
  const { data, error, response } = result
  if (!response.ok) throw new Refused(response.status, (error as Problem) || {})
  return data as T
}

/** Says of any failure what happened and what to do. */
export function troubleWords(error: unknown): string {
  if (error instanceof Unreachable) return 'Halterion is not answering. Start it again, then try once more.'
  if (error instanceof Refused) {
    if (error.status === 507) return error.problem.title ?? 'The disk is full. Free some space, then save again.'
    if (error.status >= 500) return `Halterion hit a problem. ${error.problem.detail ?? error.message}`
    return error.words
  }
  return error instanceof Error ? error.message : 'Something went wrong. Reload this screen and try again.'
}
