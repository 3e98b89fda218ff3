export { LEVELS, RECOVERY } from './capacity.ts'
export type { Level } from './capacity.ts'
export { encode, QUIET_ZONE, SymbolTooLong } from './encode.ts'
export type { QrSymbol } from './encode.ts'
export { modeOf, segmentsOf, bitsOf } from './segments.ts'
export type { Mode, Segment } from './segments.ts'
export { densityGain, gainPhrase } from './gain.ts'
export type { Gain } from './gain.ts'
export { fullSide } from './outline.ts'
export { rasterPlan, RASTER_SIDE_MAX, RasterTooLarge, scenePixels } from './pixels.ts'
export type { RasterPlan } from './pixels.ts'
export { rulerMarks } from './ruler.ts'
export type { RulerMarks } from './ruler.ts'
export { symbolScene } from './scene.ts'
export type { Area, Ink, Mark, Picture, PlainArea, Scene, Solid } from './scene.ts'
export { pathData, sceneSvg } from './svg.ts'
export {
  densities,
  density,
  MODULE_MM_MIN,
  scanningDistanceM,
  sizeWarning,
  smallestVersion,
} from './density.ts'
export type { Densities, Density } from './density.ts'
export { contrastRatio, gradeArtwork, GRADES, moduleReflectances, reflectance } from './artwork.ts'
export type { ArtworkGrades, Grade, Graded, Grid } from './artwork.ts'
export { sceneColours } from './colourPixels.ts'
export type { Pixels } from './colourPixels.ts'
export { blockDamage, correctableOf, unusedCorrection } from './damage.ts'
export type { BlockDamage } from './damage.ts'
export { look, MODULE_SHAPES, PATTERN_SHAPES, PLAIN_LOOK } from './look.ts'
export type { Look, ModuleShape, Paint, PatternShape, Tint } from './look.ts'
export { NEUTRAL_LOOKS } from './neutral.ts'
export type { NamedLook } from './neutral.ts'
export type { Curve, Outline, Point } from './path.ts'
export { styledScene } from './styled.ts'
export type { LookParts, TextOutline } from './styled.ts'
export { cmykOf } from './cmyk.ts'
export type { Cmyk } from './cmyk.ts'
export { sceneEps } from './eps.ts'
export type { ColourSpace } from './eps.ts'
export {
  CHOICES,
  choiceCosts,
  CONDITION_NAMES,
  correctionSentence,
  costSentence,
  gradesOf,
  limitsSentence,
  proof,
  reasonSentence,
} from './preflight/index.ts'
export type {
  Choice,
  ChoiceCost,
  ConditionName,
  Decoder,
  Limit,
  Piece,
  Proof,
  ProofParts,
  Readiness,
  Reason,
} from './preflight/index.ts'
export { readLetters } from './letters.ts'
export type { Letters } from './letters.ts'
