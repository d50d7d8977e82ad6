export { linkPart, readLink, readShared, sharedText, type Shared } from './shared';
