import type { FormatName } from '@/core/contracts/folder';
import type { Format } from './contract';
import { jpeg } from './jpeg';
import { png } from './png';

export const formats: Record<FormatName, Format> = { png, jpeg };
