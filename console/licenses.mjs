// After a build: the texts of the licences of everything that the console's files may contain, and the same list as CycloneDX. A package without its text, or whose
// text is that of another licence than it names, fails the build.
import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'

const folder = 'target/classes/META-INF/legal/console'
const words = {
  MIT: 'Permission is hereby granted, free of charge',
  'Apache-2.0': 'Apache License',
  'BSD-3-Clause': 'in source and binary forms',
  'OFL-1.1': 'SIL OPEN FONT LICENSE',
  '0BSD': 'Permission to use, copy, modify, and/or distribute',
  ISC: 'Permission to use, copy, modify, and/or distribute',
}
const wrong = []
const packages = Object.entries(JSON.parse(readFileSync('package-lock.json', 'utf8')).packages).filter(
  ([path, each]) => path && !each.dev && !each.optional,
)
const parts = packages.map(([path]) => {
  const { name, version, license } = JSON.parse(readFileSync(`${path}/package.json`, 'utf8'))
  const files = readdirSync(path).filter((file) => /^(licen[cs]e|notice|copying)/i.test(file))
  const text = files.map((file) => readFileSync(`${path}/${file}`, 'utf8').trim()).join('\n\n')
  if (!words[license]) wrong.push(`${name}: the licence ${license} is not known here`)
  else if (!text.toLowerCase().includes(words[license].toLowerCase()))
    wrong.push(`${name}: no text of the licence ${license}`)
  return `${name} ${version} (${license})\n\n${text}\n`
})
if (wrong.length > 0) {
  console.error(wrong.join('\n'))
  process.exit(1)
}
mkdirSync(folder, { recursive: true })
writeFileSync(`${folder}/THIRD-PARTY.txt`, parts.join(`\n${'-'.repeat(80)}\n\n`))
// npm writes such a list too, but leaves out what is also somebody's peer, such as React itself.
const components = packages.map(([path]) => {
  const { name, version, license } = JSON.parse(readFileSync(`${path}/package.json`, 'utf8'))
  return {
    type: 'library',
    name,
    version,
    licenses: [{ license: { id: license } }],
    purl: `pkg:npm/${name.replace('@', '%40')}@${version}`,
  }
})
writeFileSync(
  `${folder}/bom.json`,
  JSON.stringify({ bomFormat: 'CycloneDX', specVersion: '1.5', version: 1, components }, null, 2),
)
