export { filesApi } from './contract.ts'
export {
  DRAWING_BYTES_MAX,
  FILE_BYTES_MAX,
  FILE_NAME_MAX,
  FILE_USERS,
  fileSum,
  fileUse,
  PICTURE_PIXELS_MAX,
  PICTURE_TYPES,
  storedFile,
} from './file.ts'
export type { FileUse, FileUser, PictureType, StoredFile } from './file.ts'
