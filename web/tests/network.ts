/** The network's edge, faked: a test says who answers what. Loaded before anything that takes hold of fetch. */
type Answer = { status?: number; json?: unknown; lines?: unknown[] } | 'nobody' | 'lost'

/** What was asked: 'lost' means that it arrived, and its answer did not. */
export interface Asked {
  method: string
  path: string
  headers: Headers
  body: unknown
}

export const network = {
  asked: [] as Asked[],
  answers: (asked: Asked): Answer | Promise<Answer> => {
    throw new Error(`Nobody was expected to ask for ${asked.path}.`)
  },
}

globalThis.fetch = async (input, init) => {
  const request = new Request(new URL(input instanceof Request ? input.url : String(input), 'http://127.0.0.1'), {
    ...(input instanceof Request ? { method: input.method, headers: input.headers } : {}),
    ...init,
  })
  const text = input instanceof Request ? await input.text() : typeof init?.body === 'string' ? init.body : ''
  const asked: Asked = {
    method: request.method,
    path: new URL(request.url).pathname,
    headers: request.headers,
    body: text ? JSON.parse(text) : undefined,
  }
  network.asked.push(asked)
  const answer = await network.answers(asked)
  if (answer === 'nobody' || answer === 'lost') throw new TypeError('fetch failed')
  const { status = 200, json, lines } = answer
  const said = lines
    ? lines.map((line) => `${JSON.stringify(line)}\n`).join('')
    : json === undefined
      ? null
      : JSON.stringify(json)
  return new Response(said, {
    status,
    headers: { 'Content-Type': 'application/json' },
  })
}
