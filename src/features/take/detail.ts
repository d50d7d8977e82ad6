/** What a take is looked at closely with: loaded together, and with it the scales that nothing else needs. */
export { CloseUp } from './CloseUp';
export { ChartView, TimeChart } from '@/ui/charts';
