// What browser tests need of the server, built into one file before they start.
export { openDatabase } from '../../server/database.ts';
export { hashPassword } from '../../server/password.ts';
export { addTeacher } from '../../server/repository/teachers.ts';
export { allowReset } from '../../server/services/session.ts';
export { type RunningServer, startServer } from '../../server/start.ts';
