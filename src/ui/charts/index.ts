export { ChartView } from './ChartView';
export { TimeChart } from './TimeChart';
