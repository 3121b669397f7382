import { create } from 'zustand';
import type { Look } from '@/core/contracts/look';
import { api } from '../api/client';

/** The named sets of Finish; empty until they were read. */
export const useLooks = create<{ looks: readonly Look[] }>(() => ({ looks: [] }));

export async function readLooks(): Promise<void> {
  useLooks.setState({ looks: await api.looks() });
}

export const lookById = (id: string | null): Look | null =>
  useLooks.getState().looks.find((look) => look.id === id) ?? null;
