import { networkKey } from '@/server/limits/limits';

/** Requests that may come at once, and how many a second after that. */
type Rate = { readonly burst: number; readonly aSecond: number };

/** By a browser that says who it is, and by everybody on one network: an office reads behind one address. */
const BROWSER: Rate = { burst: 80, aSecond: 40 };
const NETWORK: Rate = { burst: 400, aSecond: 150 };
/** Keys remembered before those that are full again are forgotten. */
const MOST = 20_000;

type Bucket = { left: number; at: number };

function createBuckets({ burst, aSecond }: Rate): (key: string, now: number) => boolean {
  const buckets = new Map<string, Bucket>();
  const filled = ({ left, at }: Bucket, now: number): number =>
    Math.min(burst, left + ((now - at) / 1_000) * aSecond);
  return (key, now) => {
    if (buckets.size > MOST)
      for (const [known, bucket] of buckets)
        if (filled(bucket, now) >= burst) buckets.delete(known);
    const bucket = buckets.get(key) ?? { left: burst, at: now };
    const left = filled(bucket, now);
    const passes = left >= 1;
    buckets.set(key, { left: passes ? left - 1 : left, at: now });
    return passes;
  };
}

/**
 * Answers whether a request may go on to the framework. What is turned away here costs next to
 * nothing, where answering it with a refusal would cost as much as serving it.
 *
 * @param browser what the browser says it is, or null; anybody can say anything, so the network is
 * counted as well
 */
export function createRequestRate(): (
  address: string,
  browser: string | null,
  now: number,
) => boolean {
  const [browsers, networks] = [createBuckets(BROWSER), createBuckets(NETWORK)];
  return (address, browser, now) => {
    const network = networkKey(address);
    return (browser === null || browsers(`${network} ${browser}`, now)) && networks(network, now);
  };
}
