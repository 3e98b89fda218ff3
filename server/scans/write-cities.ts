// Run by the build, with the name of the file: so nobody who searches a city waits for the list of them.
import { writeCities } from './cityList.ts'

const [, , file] = process.argv
if (file === undefined) throw new Error('Name the file to write the cities into.')
writeCities(file)
