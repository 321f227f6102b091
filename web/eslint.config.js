import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

/** Files in one room that do not know of another: a circle between two rooms is an error. */
const apart = (files, rooms) => ({
  files: [files],
  rules: { 'no-restricted-imports': ['error', { patterns: rooms.map((room) => `**/${room}/**`) }] },
})

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts'] },
  ...tseslint.configs.recommended,
  hooks.configs.flat['recommended-latest'],
  apart('src/api/**', ['save', 'plan', 'leading', 'ui', 'features', 'app']),
  apart('src/save/**', ['leading', 'features', 'app']),
  apart('src/plan/**', ['save', 'leading', 'ui', 'features', 'app']),
  apart('src/leading/**', ['features', 'app']),
  apart('src/features/editor/**', ['checks', 'build', 'app']),
  apart('src/features/desk/**', ['editor', 'app']),
)
