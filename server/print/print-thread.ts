import { serveCalls } from '../threads/index.ts'
import { draw } from './draw.ts'
import { documents } from './pages.ts'

serveCalls({ draw, ...documents() })
