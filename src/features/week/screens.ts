/** Everything of the week in one piece, which is loaded when the first of it is shown. */
export { DayScreen } from './DayScreen';
export { OpenScreen } from './OpenScreen';
export { PrintWeekScreen } from './PrintWeekScreen';
export { WeekScreen } from './WeekScreen';
export { WishesScreen } from './WishesScreen';
