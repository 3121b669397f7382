import { startSessionBus } from '@/tests/lib/sessionBus';
import { openBus } from '../bus/bus';

/** A bus of a test's own, named in the environment, and one who sends signals on it. */
export async function busFor(variable: 'DBUS_SESSION_BUS_ADDRESS' | 'DBUS_SYSTEM_BUS_ADDRESS') {
  const daemon = await startSessionBus();
  process.env[variable] = daemon.address;
  const sender = await openBus(daemon.address, () => undefined);
  const end = async () => {
    process.env[variable] = 'unix:path=/nowhere/bus';
    sender.connection.end();
    await daemon.end();
  };
  return { sender, end };
}
