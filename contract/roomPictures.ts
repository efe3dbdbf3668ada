/** What opens a room: four of these in their order. Each is drawn, and has its word. */
export const PICTURES = [
  ...['anchor', 'gull', 'lamp', 'rope', 'boat', 'fish', 'crab', 'bell'],
  ...['bucket', 'net', 'oar', 'shell', 'flag', 'wave', 'key', 'hat'],
  ...['kite', 'drum', 'ladder', 'barrel', 'star', 'moon', 'cup', 'boot'],
] as const;
export type Picture = (typeof PICTURES)[number];
export const PICTURES_OF_A_ROOM = 4;

/** Children who may be in a room beyond those of its class: for devices that come a second time. */
export const ROOM_TO_SPARE = 3;

/** Figures of the code of a child, where names are not shown. */
export const CODE_LENGTH = 4;
