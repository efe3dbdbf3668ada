import type { ClassSettings } from '../../../../contract/schoolClass.ts';

/** What every form of a class works with. */
export interface SettingsFormProps {
  readonly settings: ClassSettings;
  /** Why the last try to save did not work. */
  readonly problem: Error | undefined;
  readonly onSave: (settings: ClassSettings) => Promise<void>;
  readonly onCancel: () => void;
}
