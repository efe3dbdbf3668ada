import type { ClassDetail, ClassSettings } from '../../contract/schoolClass.ts';

/** What a teacher sets for a class, without what comes along with it. */
export function settingsOf(schoolClass: ClassDetail): ClassSettings {
  const { id: _id, children: _children, role: _role, owner: _owner, ...more } = schoolClass;
  const { schoolId: _school, ...settings } = more;
  return settings;
}
