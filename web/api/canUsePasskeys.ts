/** A passkey belongs to a name of a site; a bare address has none, and neither has an unsafe connection. */
export function canUsePasskeys(): boolean {
  return typeof PublicKeyCredential !== 'undefined' && isSecureContext && !/^[\d.]+$|:/.test(location.hostname);
}
