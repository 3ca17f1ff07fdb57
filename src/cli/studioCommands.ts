/** Commands about the studio in the folder that KEYPATH_DATA names, and what each does. Only studio.ts needs the database. */
export const STUDIO_COMMANDS = {
  'backup FILE': 'a backup of everything in one file, also while Key Path runs',
  'restore FILE': 'restores a backup; today’s data is saved beside it',
  passphrase: 'sets the passphrase for other computers',
} as const;

export type StudioCommand = 'backup' | 'restore' | 'passphrase';

export const isStudioCommand = (name: string | undefined): name is StudioCommand =>
  Object.keys(STUDIO_COMMANDS).some((usage) => usage.split(' ')[0] === name);
