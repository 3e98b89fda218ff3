export { LEVELS, RECOVERY } from './capacity.ts'
export type { Level } from './capacity.ts'
export { encode, QUIET_ZONE, SymbolTooLong } from './encode.ts'
export type { QrSymbol } from './encode.ts'
export { modeOf, segmentsOf, bitsOf } from './segments.ts'
export type { Mode, Segment } from './segments.ts'
export { densityGain, gainPhrase } from './gain.ts'
export type { Gain } from './gain.ts'
export { fullSide } from './outline.ts'
export { isBilevel, rasterPlan, RASTER_SIDE_MAX, RasterTooLarge, scenePixels } from './pixels.ts'
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
export type { LookParts } from './lookParts.ts'
export type { Face, SetText, TextOutline } from './lettering.ts'
export { freeLevel, printedSymbol } from './freeLevel.ts'
export {
  DEFAULT_FINISH,
  drawnMm,
  FILE_FORMATS,
  finish,
  finished,
  finishedLook,
  VECTOR_FORMATS,
} from './finish.ts'
export type { FileFormat, Finish, Finished } from './finish.ts'
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
  fixesFor,
  gradesOf,
  limitsSentence,
  limitWords,
  proof,
  reasonSentence,
} from './preflight/index.ts'
export type {
  Choice,
  ChoiceCost,
  ConditionName,
  Decoder,
  Fix,
  FixSet,
  Limit,
  Piece,
  Proof,
  ProofParts,
  Readiness,
  Reason,
} from './preflight/index.ts'
export { pieceProof, printState, printStateOf, PROOF_STATES, proofKey } from './pieceProof.ts'
export type { PieceProof, PrintState, ProofState } from './pieceProof.ts'
export { changedSince, RELEASE_CHANGES, releaseMark, releaseSentence } from './released.ts'
export type { Printed, ReleaseChange, ReleaseMark } from './released.ts'
export { CellTooSmall, inCell, sheetMarks } from './imposed.ts'
export type { CellContent } from './imposed.ts'
export { ENTRIES_A_PAGE, proofPage } from './proofPage.ts'
export type { ProofEntry } from './proofPage.ts'
export { laidOn, onPicture, placement } from './placement.ts'
export type { Placement } from './placement.ts'
export { readLetters } from './letters.ts'
export type { Letters } from './letters.ts'
