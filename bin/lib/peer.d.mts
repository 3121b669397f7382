import type { Socket } from 'node:net';

export function tableForm(address: string, port: number): string;
export function ownerIn(
  table: string,
  local: readonly string[],
  remote: readonly string[],
): number | null;
export function peerOf(
  socket: Pick<Socket, 'remoteAddress' | 'remotePort' | 'localAddress' | 'localPort'>,
): Promise<number | null>;
