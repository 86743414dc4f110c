import { spawn } from 'node:child_process';

/** Runs a script of this folder until it has said `word` and `after` ms more have passed, then kills it with all it started. */
export function runUntilKilled(script: string, folder: string, word: string, after: number): Promise<string> {
  const child = spawn('npx', ['tsx', '--conditions=react-server', script, folder], { stdio: ['ignore', 'pipe', 'inherit'], detached: true });
  let said = '';
  let armed = false;
  return new Promise((resolve) => {
    child.stdout.on('data', (text: Buffer) => {
      said += text.toString();
      // Counted from its first word, so that it is killed at work and not while it starts.
      if (armed || !said.includes(word)) return;
      armed = true;
      setTimeout(() => { process.kill(-(child.pid ?? 0), 'SIGKILL'); }, after);
    });
    child.on('close', () => { resolve(said); });
  });
}
