export {
  linkPart,
  readLink,
  readShared,
  SHARED_VERSION,
  sharedSchema,
  sharedText,
  type Shared,
} from './shared';
