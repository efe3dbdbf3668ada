import Button from 'react-bootstrap/Button';

/** A name, its key, what it does, and where it can be on: whether it is. */
export type KeyEntry = readonly [name: string, key: string, press: () => void, pressed?: boolean];

/** What can be done in a view for the whole class, each at its key. */
export function KeyButtons({ entries }: { entries: readonly KeyEntry[] }) {
  return entries.map(([name, key, press, pressed]) => (
    <Button key={key} size="sm" variant="outline-dark" aria-pressed={pressed} onClick={press}>
      {name} <kbd>{key}</kbd>
    </Button>
  ));
}
