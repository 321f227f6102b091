// No line of code is longer than 140 columns: it is read beside another file. What a raw string says is data and stays as it is.
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const MOST = 140
const generated = /schema\.d\.ts$|lead-page\.js$/
const elsewhere = new Set(['bin', 'obj', 'node_modules', 'wwwroot'])
const within = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory()
      ? elsewhere.has(entry.name)
        ? []
        : within(join(folder, entry.name))
      : /\.(cs|tsx?|mjs)$/.test(entry.name)
        ? [join(folder, entry.name)]
        : [],
  )
const files = ['src', 'tests', 'bench', 'web/src', 'web/tests'].flatMap(within)
const long = files
  .filter((file) => !generated.test(file))
  .flatMap((file) => {
    let raw = false
    return readFileSync(file, 'utf8')
      .split('\n')
      .flatMap((line, i) => {
        const quotes = (file.endsWith('.cs') && line.match(/"{3,}/g)) || []
        const inRaw = raw || quotes.length > 0
        if (quotes.length % 2 === 1) raw = !raw
        return !inRaw && line.length > MOST ? [`${file}:${i + 1} has ${line.length} columns`] : []
      })
  })
if (long.length > 0) {
  console.log(long.join('\n'))
  process.exit(1)
}
