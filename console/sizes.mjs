// After a build: the script that each page needs for its first view, compressed. Over the limit the build fails.
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'

const folder = 'target/classes/static/'
const limit = 200_000
const manifest = JSON.parse(readFileSync(`${folder}.vite/manifest.json`, 'utf8'))
const entry = Object.keys(manifest).find((name) => manifest[name].isEntry)

/** A chunk with all that it imports at once; what is fetched later is not in the first view. */
const closure = (name, seen = new Set()) => {
  if (seen.has(name)) return seen
  seen.add(name)
  for (const each of manifest[name].imports ?? []) closure(each, seen)
  return seen
}
const bytes = (names) =>
  [...names].reduce((sum, name) => sum + gzipSync(readFileSync(folder + manifest[name].file)).length, 0)

const pages = Object.keys(manifest).filter(
  (name) => manifest[name].isDynamicEntry && /Page|Editor/.test(name) && !name.includes('CodeEditor'),
)
const sizes = pages.map((page) => [page, bytes(closure(page, closure(entry)))]).sort((a, b) => b[1] - a[1])
const [greatest] = sizes
console.log(
  `First view: at most ${Math.round(greatest[1] / 1000)} kB of compressed script (${greatest[0]}), of ${limit / 1000} kB allowed.`,
)
if (greatest[1] > limit) process.exit(1)
