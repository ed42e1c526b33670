import { readFile } from 'node:fs/promises';

/** Clock ticks a second in which the kernel counts; the same on every Linux that people use. */
const TICKS = 100;
/** Fields of /proc/PID/stat behind the name, which may hold spaces and brackets: utime and stime (proc(5), 14 and 15). */
const [USER, SYSTEM] = [11, 12];

/** Time that a process has computed so far, milliseconds; null if it is gone or the system does not say. */
export async function cpuTimeOf(pid: number): Promise<number | null> {
  try {
    const stat = await readFile(`/proc/${pid}/stat`, 'latin1');
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    const ticks = Number(fields[USER]) + Number(fields[SYSTEM]);
    return Number.isFinite(ticks) ? (ticks * 1000) / TICKS : null;
  } catch {
    return null;
  }
}
