/** Writes the types of the API's answers and of documents, from the contract. */
import { mkdir, readFile, writeFile } from 'node:fs/promises'
import openapiTS, { astToString } from 'openapi-typescript'

const folder = new URL('src/api/generated/', import.meta.url)
const contract = new URL('../contract/', import.meta.url)

async function write(name, description) {
  const types = await openapiTS(description, { alphabetize: true })
  await writeFile(new URL(name, folder), astToString(types))
}

await mkdir(folder, { recursive: true })
await write('contract.d.ts', new URL('openapi.json', contract))
// The generator reads JSON Schema as a part of a description of an API.
const schema = await readFile(new URL('definition.schema.json', contract), 'utf8')
await write('definitions.d.ts', {
  openapi: '3.1.0',
  info: { title: 'Definitions', version: '1' },
  paths: {},
  components: { schemas: JSON.parse(schema.replaceAll('#/$defs/', '#/components/schemas/')).$defs },
})
