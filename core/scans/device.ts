import { UAParser } from 'ua-parser-js'
import type { DeviceType } from './deviceTypes.ts'

/** What a user agent says of itself; an unknown part is an empty text. */
export interface Device {
  readonly type: DeviceType
  /** Operating system without its version: "iOS", "Android", "Windows". */
  readonly system: string
  /** The system's version as far as it is given: "17.5". */
  readonly systemVersion: string
  readonly browser: string
}

const TYPES: Readonly<Record<string, DeviceType>> = {
  mobile: 'phone',
  tablet: 'tablet',
  smarttv: 'television',
  wearable: 'watch',
  console: 'other',
  embedded: 'other',
  xr: 'other',
}
/** Systems that run on a desk; anything else without a device type is "other". */
const DESK_SYSTEMS = new Set([
  'Windows',
  'macOS',
  'ChromeOS',
  'Linux',
  'Ubuntu',
  'Debian',
  'Fedora',
  'FreeBSD',
  'OpenBSD',
])
const SYSTEM_NAMES: Readonly<Record<string, string>> = {
  'Mac OS': 'macOS',
  'Chromium OS': 'ChromeOS',
  'Chrome OS': 'ChromeOS',
}

/** A version is digits and points, and short; whatever else stands in its place is not kept. */
const VERSION = /^[\d.]{1,20}/
const NAME_MAX = 40

/** Reads device type, system and browser from a `User-Agent` (RFC 9110, section 10.1.5). Never throws. */
export function deviceOf(userAgent: string): Device {
  const { device, os, browser } = new UAParser(userAgent.slice(0, 500)).getResult()
  const system = os.name === undefined ? '' : (SYSTEM_NAMES[os.name] ?? os.name)
  const named = device.type === undefined ? undefined : TYPES[device.type]
  return {
    type: named ?? (DESK_SYSTEMS.has(system) ? 'computer' : 'other'),
    system: system.slice(0, NAME_MAX),
    systemVersion: VERSION.exec(os.version ?? '')?.[0] ?? '',
    browser: (browser.name ?? '').replace(/^Mobile (?=Safari|Chrome|Firefox)/, '').slice(0, NAME_MAX),
  }
}
