import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Plan = Schemas['ClassPlan']
export type PlanBlock = Schemas['PlanBlock']
export type PlanStation = Schemas['PlanStation']
export type PlanOption = Schemas['PlanOption']
export type PlanPart = Schemas['PlanPart']
export type Booking = Schemas['Booking']
export type Evaluation = Schemas['Evaluation']
export type Fault = Schemas['PlanFault']
export type Family = Schemas['Family']
export type Move = Schemas['Move']

export type ClassView = Omit<Schemas['ClassView'], 'plan'> & { plan: Plan }

export const api = createClient<paths>({ baseUrl: '' })

/** What the server said no to: problem details (RFC 9457) with whatever it adds. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problem: { title?: string | null; detail?: string | null; errors?: Fault[]; current?: ClassView },
  ) {
    super(problem.title ?? 'The server refused this.')
  }
}

/** The data of an answer; throws what the server refused, or that it could not be reached. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call
  if (!response.ok) throw new Refused(response.status, (error as Refused['problem']) || {})
  return data as T
}
