/** A scan could not be stored; its redirect must not be answered. */
export class ScanNotStored extends Error {
  override readonly name = 'ScanNotStored'
}

/** More scans are waiting for the disk than memory should hold. */
export class DoorBusy extends Error {
  override readonly name = 'DoorBusy'
  constructor() {
    super('Too many scans are waiting to be stored')
  }
}
