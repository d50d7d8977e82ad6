export { NotFoundScreen } from './NotFoundScreen';
export { TodayScreen } from './TodayScreen';
