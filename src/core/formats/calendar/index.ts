export { calendarFile, type CalendarDay } from './calendar';
