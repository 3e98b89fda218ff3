import { describe, expect, it } from 'vitest'
import { unreachableByPhones } from './index.ts'

describe('an origin of short links', () => {
  it.each([
    'http://localhost:4001',
    'http://127.0.0.1',
    'http://10.1.2.3:80',
    'http://192.168.0.7',
    'http://172.31.0.1',
    'http://100.64.0.1',
    'http://169.254.1.1',
    'http://[::1]:4001',
    'http://[fd00::1]',
    'http://[fe80::1]',
    'http://server:4001',
    'http://door.local',
    'http://door.lan',
    'http://a.localhost',
    'http://flimbo.internal',
    'nonsense',
  ])('%s is out of phones’ reach', (origin) => {
    expect(unreachableByPhones(origin)).toContain('Phones cannot reach')
  })
  // Documentation addresses of RFC 5737 and RFC 3849 stand for public ones here.
  it.each([
    'https://go.saltmarsh.example',
    'http://203.0.113.7',
    'http://172.32.0.1',
    'http://100.128.0.1',
    'http://[2001:db8::1]',
    'https://localhost.saltmarsh.example',
    'https://go.saltmarsh.example.',
  ])('%s is not', (origin) => {
    expect(unreachableByPhones(origin)).toBeNull()
  })
})
