import type { Remote } from '@/core/contracts/remote';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';

const none: readonly Remote[] = [];

/** The remote folders; none while they cannot be asked for. */
export const useRemotes = (): readonly Remote[] => useAnswer(api.remotes, 'remotes').answer ?? none;
