export { InstrumentScreen as default } from '@/features/instruments';
