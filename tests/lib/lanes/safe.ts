import { takeLane } from '../lane';

await takeLane('safe');
