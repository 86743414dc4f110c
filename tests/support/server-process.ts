import type { ChildProcess } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';

export type Running = {
  /** Memory in use by the process, MiB. */
  readonly memory: () => number;
  /** Ends the process and removes its folder. */
  readonly stop: () => Promise<void>;
};

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer()
      .on('error', reject)
      .listen(0, '127.0.0.1', () => {
        const { port } = server.address() as AddressInfo;
        server.close(() => {
          resolve(port);
        });
      });
  });
}

/** What can be asked of a server that runs as a process of its own on a folder of its own. */
export function running(child: ChildProcess, folder: string): Running {
  return {
    memory: () =>
      Number(
        /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${String(child.pid)}/status`, 'utf8'))?.[1] ?? 0,
      ) / 1024,
    stop: async () => {
      const ended = new Promise((resolve) => {
        child.on('close', resolve);
      });
      child.kill('SIGTERM');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
