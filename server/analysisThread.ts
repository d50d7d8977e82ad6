import { analyse } from './analyse';

export default analyse;
