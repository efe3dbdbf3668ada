import { create } from 'qrcode';
import { useMemo } from 'react';
import './dotsPicture.scss';

/** White around the dots, in dots: what a camera needs to find them. */
const QUIET = 4;

/** An address as a picture of dots (QR). */
export function DotsPicture({ address, name }: { readonly address: string; readonly name: string }) {
  const { size, path } = useMemo(() => {
    const { modules } = create(address, { errorCorrectionLevel: 'M' });
    const dots = Array.from(modules.data, (dark, i) =>
      dark ? `M${(i % modules.size) + QUIET} ${Math.floor(i / modules.size) + QUIET}h1v1h-1z` : '',
    );
    return { size: modules.size + 2 * QUIET, path: dots.join('') };
  }, [address]);
  return (
    <svg
      className="dots-picture"
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label={name}
      shapeRendering="crispEdges"
    >
      <rect width={size} height={size} className="dots-ground" />
      <path d={path} />
    </svg>
  );
}
