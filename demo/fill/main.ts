// Fills a database with the sample scenario, unless somebody has set it up already.
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { en, Faker } from '@faker-js/faker'
import { readConfig } from '@flimbo/server/config'
import { openDatabase, tables } from '@flimbo/server/database'
import { fillObjects } from './objects.ts'
import { fillGoals } from './goals.ts'
import { fillMails } from './mails.ts'
import { fillReports } from './reports.ts'
import { fillResults } from './results.ts'
import { fillScans } from './scans.ts'
import { fillUnusual } from './unusual.ts'

const SEED = 20261124
/** Brings the scenario's weeks to a little more than 60,000 scans. */
const SCALE = 1.7

const { databaseFile, dataDir } = readConfig(process.env)
const database = await openDatabase(databaseFile)
if (await database.read.existsBy(tables.people, {})) {
  console.log('The sample data is already there.')
  await database.close()
} else {
  const began = Date.now()
  const faker = new Faker({ locale: en, seed: SEED })
  try {
    await fillObjects(database, faker, began, join(dataDir, 'files'))
    const scans = await fillScans(database, faker, began, SCALE)
    await fillGoals(database, faker, began)
    await fillMails(database, faker, began)
    await fillResults(database, began)
    await fillReports(database, began)
    await fillUnusual(database, began)
    console.log(
      `Filled with ${scans.toLocaleString('en-GB')} scans in ${((Date.now() - began) / 1000).toFixed(1)} s.`,
    )
    await database.close()
  } catch (error) {
    // Half a scenario would look like data; the next run starts afresh.
    await database.close()
    for (const suffix of ['', '-wal', '-shm']) rmSync(databaseFile + suffix, { force: true })
    throw error
  }
}
