import { takeLane } from '../lane';

await takeLane('app');
