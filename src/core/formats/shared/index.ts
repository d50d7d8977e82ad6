export { linkPart, readLink, readShared, sharedSchema, sharedText, type Shared } from './shared';
