export { filesApi } from './contract.ts'
export {
  CAPTIONS_BYTES_MAX,
  DRAWING_BYTES_MAX,
  FILE_BYTES_MAX,
  FILE_NAME_MAX,
  FILE_USERS,
  fileKey,
  fileSum,
  fileUse,
  isPictureType,
  MEDIA_TYPES,
  PICTURE_BYTES_MAX,
  PICTURE_PIXELS_MAX,
  PICTURE_TYPES,
  storedFile,
} from './file.ts'
export type { FileType, FileUse, FileUser, MediaType, PictureType, StoredFile } from './file.ts'
