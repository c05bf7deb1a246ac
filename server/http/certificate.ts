import { X509Certificate, createPrivateKey } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { isIP } from 'node:net';
import { generate } from 'selfsigned';

export interface Certificate {
  readonly cert: string;
  readonly key: string;
  /** By which a person sees on a tablet that it is this studio’s. */
  readonly fingerprint: string;
}

const RENEWED_BEFORE_MS = 30 * 86_400_000;
const IP_ALT_NAME = 7;
const DNS_ALT_NAME = 2;

/** One that somebody has: of a name on the internet, or of the house’s own authority. @throws {Error} where it can’t be read or used */
export function readCertificate(certPath: string, keyPath: string): Certificate {
  const [cert, key] = [readFileSync(certPath, 'utf8'), readFileSync(keyPath, 'utf8')];
  const parsed = new X509Certificate(cert);
  if (!parsed.checkPrivateKey(createPrivateKey(key)))
    throw new Error(`The key in ${keyPath} isn’t the one of the certificate in ${certPath}.`);
  return { cert, key, fingerprint: parsed.fingerprint256 };
}

/**
 * The studio’s own certificate, made at the first start and kept in its folder; made anew where it is for other names
 * or soon over. Nobody vouches for it: each browser asks once, and the fingerprint tells that it is the right one.
 */
export async function ownCertificate(folder: string, names: readonly string[], now: Date): Promise<Certificate> {
  const [certPath, keyPath] = [join(folder, 'certificate.pem'), join(folder, 'key.pem')];
  if (existsSync(certPath) && existsSync(keyPath)) {
    const kept = readCertificate(certPath, keyPath);
    if (isGood(new X509Certificate(kept.cert), names, now)) return kept;
  }
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const made = await generate([{ name: 'commonName', value: names[0] ?? 'localhost' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    extensions: [
      {
        name: 'subjectAltName',
        altNames: names.map((name) =>
          isIP(name) ? { type: IP_ALT_NAME, ip: name } : { type: DNS_ALT_NAME, value: name },
        ),
      },
    ],
  });
  for (const [path, content] of [
    [keyPath, made.private],
    [certPath, made.cert],
  ] as const) {
    writeFileSync(`${path}.part`, content, { mode: 0o600 });
    renameSync(`${path}.part`, path);
  }
  return readCertificate(certPath, keyPath);
}

const isGood = (certificate: X509Certificate, names: readonly string[], now: Date): boolean =>
  Date.parse(certificate.validTo) - now.getTime() > RENEWED_BEFORE_MS &&
  names.every((name) => (isIP(name) ? certificate.checkIP(name) : certificate.checkHost(name)) !== undefined);
