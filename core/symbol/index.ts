export { fullSide, outlinePath, symbolSvg } from './draw.ts'
export { encode, LEVELS, modeOf, QUIET_ZONE, RECOVERY, SymbolTooLong } from './encode.ts'
export type { Level, Mode, QrSymbol } from './encode.ts'
export { gain, gainPhrase } from './gain.ts'
export type { Gain } from './gain.ts'
export { rasterise, rasterPlan, RASTER_SIDE_MAX, RasterTooLarge } from './raster.ts'
export type { RasterPlan } from './raster.ts'
export {
  densities,
  density,
  MODULE_MM_MIN,
  scanningDistanceM,
  sizeWarning,
  smallestVersion,
} from './density.ts'
export type { Densities, Density } from './density.ts'
