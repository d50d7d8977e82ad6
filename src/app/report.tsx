export { ReportScreen as default } from '@/features/log';
