/** What kinds of devices are told apart. In a file of its own: screens name them without the parser that finds them. */
export const DEVICE_TYPES = ['phone', 'tablet', 'computer', 'television', 'watch', 'other'] as const
export type DeviceType = (typeof DEVICE_TYPES)[number]
