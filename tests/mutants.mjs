// Twenty faults, planted one at a time at seams between parts, and whether a test sees them: node tests/mutants.mjs [PART OF A NAME].
// Run by hand in a clean checkout, not by ./halterion test: each C# fault is built and tested anew, which takes half a minute.
import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const root = join(import.meta.dirname, '..')

/** Which tests should see it: those of the front end by file, those of a project by class. */
const front = (file) => ['npm', ['--prefix', 'web', 'test', '--', `tests/${file}.test.ts`]]
const dotnet = (project, name) => [
  'dotnet',
  ['test', '--project', `tests/Halterion.${project}.Tests`, '--filter-class', `*${name}`],
]

const faults = [
  {
    name: 'what rings does not move with added seconds',
    file: 'web/src/leading/core/sounding.ts',
    from: 'it.at * 1000 + addedBefore(added, it.shift)',
    to: 'it.at * 1000',
    by: front('sounding'),
  },
  {
    name: 'minutes as planned are said after a change',
    file: 'web/src/leading/core/sounding.ts',
    from: "(call.kind === 'minutes' && changed)",
    to: "(call.kind === 'minutes' && changed && false)",
    by: front('sounding'),
  },
  {
    name: 'a pause lets ring what was about to',
    file: 'web/src/leading/core/bells.ts',
    from: 'for (const node of pending) node.stop()',
    to: 'pending.clear()',
    by: front('sounding'),
  },
  {
    name: 'mine over theirs keeps the old version',
    file: 'web/src/save/Saver.ts',
    from: 'this.version = theirs.version\n    this.saved = theirs.value\n    this.other = null',
    to: 'this.saved = theirs.value\n    this.other = null',
    by: front('saver'),
  },
  {
    name: 'what had arrived though its answer was lost is taken for another’s',
    file: 'web/src/save/Saver.ts',
    from: 'this.unanswered.some((sent) => same(sent, theirs.value))',
    to: 'this.unanswered.some(() => false)',
    by: front('saver'),
  },
  {
    name: 'a reload without the server loses the time since its last note',
    file: 'web/src/leading/LeadKeeper.ts',
    from: 'tick.moment + Math.max(0, Date.now() - tick.wall)',
    to: 'tick.moment',
    by: front('keeper'),
  },
  {
    name: 'a moved station keeps fields that do not fit',
    file: 'web/src/plan/edit.ts',
    from: 'source === target ? station : suited(station, b)',
    to: 'station',
    by: front('edit'),
  },
  {
    name: 'clocks are brought together in one step',
    file: 'web/src/leading/steady.ts',
    from: 'apart > 0 ? Math.min(apart, 40) : Math.max(apart, -5)',
    to: 'apart',
    by: front('time'),
  },
  {
    name: 'undo does not bring back what gave way',
    file: 'web/src/features/editor/ClassEditor.ts',
    from: 'past: [...s.past, theirs].slice(-MOST_STEPS), future: []',
    to: 'past: s.past, future: []',
    by: front('editor'),
  },
  {
    name: 'a draft is taken from a tab that is still there',
    file: 'web/src/save/kept.ts',
    from: '(await isAlive(owner))',
    to: '!owner',
    by: front('kept'),
  },
  {
    name: 'groups go the wrong way round',
    file: 'src/Halterion.Core/Room/Moments.cs',
    from: '(g + w) % many',
    to: '(g - w + many) % many',
    by: dotnet('Core', 'CourseTests'),
  },
  {
    name: 'a person goes the wrong way round',
    file: 'src/Halterion.Core/Checks/Course.cs',
    from: '(starts[span.Block] + leg) %',
    to: '(starts[span.Block] + block.Stations.Length - leg) %',
    by: dotnet('Core', 'CourseTests'),
  },
  {
    name: 'a warning does not move with its scene',
    file: 'src/Halterion.Core/Leading/Cue.cs',
    from: 'CueKind.Warning, i + 1, WarnAt, i',
    to: 'CueKind.Warning, i, WarnAt, i',
    by: dotnet('Core', 'CallTests'),
  },
  {
    name: 'ten seconds to go stays when ten are added',
    file: 'src/Halterion.Core/Leading/Calling/CallWriter.cs',
    from: 'end - 10, i + 1, Clip.TenSeconds',
    to: 'end - 10, i, Clip.TenSeconds',
    by: dotnet('Core', 'CallTests'),
  },
  {
    name: 'a recorded side is the other one',
    file: 'src/Halterion.Core/Leading/Calling/Clip.cs',
    from: 'Side.Left => [Left]',
    to: 'Side.Left => [Right]',
    by: dotnet('Core', 'CallTests'),
  },
  {
    name: 'a switch strikes once',
    file: 'src/Halterion.Core/Leading/Bell.cs',
    from: 'CueKind.Switch, 780, 0.3, 2',
    to: 'CueKind.Switch, 780, 0.3, 1',
    by: dotnet('Core', 'SmallRulesTests'),
  },
  {
    name: 'an expired code lets in',
    file: 'src/Halterion.Web/Security/Pairing.cs',
    from: 'held.Until >= now',
    to: 'held.Until >= default(DateTimeOffset)',
    by: dotnet('Web', 'RoleTests'),
  },
  {
    name: 'a wall hears notes about people',
    file: 'src/Halterion.Core/Leading/WallView.cs',
    from: 'c.Kind is not (LeadCommandKind.Note or LeadCommandKind.Lead)',
    to: 'c.Kind is not LeadCommandKind.Lead',
    by: dotnet('Web', 'SessionApiTests'),
  },
  {
    name: 'a session’s version is pinned twice',
    file: 'src/Halterion.Store/Sessions.cs',
    from: 'WHERE id = @id AND class_version IS NULL',
    to: 'WHERE id = @id',
    by: dotnet('Store', 'LogTests'),
  },
  {
    name: 'a migration swaps tiers',
    file: 'src/Halterion.Store/Schema/006.sql',
    from: "WHEN 'Easier' THEN",
    to: "WHEN 'Harder' THEN",
    by: dotnet('Store', 'MigrationStepTests'),
  },
]

const wanted = process.argv[2] ?? ''
let found = 0
const tried = faults.filter((fault) => fault.name.includes(wanted) || fault.file.startsWith(wanted))
for (const { name, file, from, to, by } of tried) {
  const path = join(root, file)
  const text = readFileSync(path, 'utf8')
  if (text.split(from).length !== 2)
    throw new Error(`${file} has “${from}” not once: the fault has to be planted anew.`)
  writeFileSync(
    path,
    text.replace(from, () => to),
  )
  let seen = false
  try {
    execFileSync(by[0], by[1], { cwd: root, stdio: 'ignore' })
  } catch {
    seen = true
  } finally {
    writeFileSync(path, text)
  }
  if (seen) found++
  console.log(`${seen ? 'found ' : 'UNSEEN'}  ${name}`)
}
console.log(`${found} of ${tried.length} found`)
