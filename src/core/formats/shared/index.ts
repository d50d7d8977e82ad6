export { calendarFile, type CalendarDay } from './calendar';
export { linkPart, readLink, readShared, sharedText, type Shared } from './shared';
