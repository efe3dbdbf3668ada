/** The address of one lesson. */
export const lessonPath = (classId: string, lessonId: string) => `/plan/${classId}/${lessonId}`;
