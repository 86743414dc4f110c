import { spawn } from 'node:child_process';
import { SERVER } from '../scripts/prepare.mjs';
import { freePort } from '../tests/support/server-process';

/** Waits until something is answered well at an address. */
export async function until(url: string): Promise<void> {
  for (;;) {
    const answer = await fetch(url, { redirect: 'manual' }).catch(() => null);
    if (answer?.ok === true) {
      await answer.arrayBuffer();
      return;
    }
    await new Promise((resolve) => {
      setTimeout(resolve, 10);
    });
  }
}

/** The built server as a process of its own on a product's folder; it may not answer yet. */
export async function startBuilt(folder: string): Promise<{
  readonly url: string;
  readonly pid: number | undefined;
  readonly kill: () => Promise<void>;
}> {
  const port = String(await freePort());
  const url = `http://localhost:${port}`;
  const environment: NodeJS.ProcessEnv = {
    PATH: process.env['PATH'],
    NODE_ENV: 'production',
    ...SERVER.environment,
    PORT: port,
    PUBLIC_URL: url,
    DATA_DIR: folder,
    LOG_LEVEL: 'silent',
  };
  const child = spawn(process.execPath, [...SERVER.flags, 'build/server.mjs'], {
    env: environment,
    stdio: 'ignore',
  });
  const ended = new Promise<void>((resolve) => {
    child.on('close', () => {
      resolve();
    });
  });
  return {
    url,
    pid: child.pid,
    kill: () => {
      child.kill('SIGKILL');
      return ended;
    },
  };
}
