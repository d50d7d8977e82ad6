export { InstrumentsScreen as default } from '@/features/instruments';
