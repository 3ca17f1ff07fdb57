/** Commands about the studio in the folder that KEYPATH_DATA names, and what each does. Only studio.ts needs the database. */
export const STUDIO_COMMANDS = {
  'backup FILE': 'a copy of everything in one file, also while Key Path runs',
  'restore FILE': 'puts a copy in place; what was there is kept beside it',
  passphrase: 'sets what other computers are asked for',
} as const;

export type StudioCommand = 'backup' | 'restore' | 'passphrase';

export const isStudioCommand = (name: string | undefined): name is StudioCommand =>
  Object.keys(STUDIO_COMMANDS).some((usage) => usage.split(' ')[0] === name);
