import { takeLane } from '../lane';

await takeLane('server');
