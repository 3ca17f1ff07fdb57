/** Ten short answers, for the help page: what a teacher asks in the first weeks. */
interface Answer {
  readonly asked: string;
  readonly answer: string;
}

export const ANSWERS: readonly Answer[] = [
  {
    asked: 'How do I get from a piece to a lesson?',
    answer:
      'Add a piece, make a version of it at a level, then assign the version to a student. It appears on Today and in the student’s lesson with a practice plan.',
  },
  {
    asked: 'What is the difference between a piece and a version?',
    answer:
      'The piece is the music as you added it; its file never changes. A version is the piece at one level, in one key, for one pair of hands. A piece can have many versions.',
  },
  {
    asked: 'What do outlined and filled fingers mean?',
    answer:
      'Outlined fingers are suggestions. Filled fingers are your choices; they stay when you change the level or the key. Reset takes a choice back to the suggestion.',
  },
  {
    asked: 'How do I change a finger?',
    answer:
      'Select a note and press 1 to 5, or tap a finger beside the note. The fingers around it adapt. Press 0 or Reset to go back.',
  },
  {
    asked: 'Can I undo?',
    answer:
      'Yes. Undo works on the bench, also after a reload. History lists every change of a version; you can look at any of them and restore it. Deleted things wait in the trash.',
  },
  {
    asked: 'What does a level allow?',
    answer:
      'Levels shows every limit, such as the widest stretch, the shortest note or the number of sharps or flats. You can change a level or add one; every version at that level follows.',
  },
  {
    asked: 'What if a wrong note is in the file?',
    answer:
      'Change it on the bench, then open Choices and pick Correct the source. Every version of the piece uses the correction; the file itself stays as it was.',
  },
  {
    asked: 'How do I print?',
    answer:
      'Open Handout from the bench. Choose the sheets, the size and the student, then print or download the PDF. A class prints all its parts at once.',
  },
  {
    asked: 'Where is my data?',
    answer:
      'On this computer, in one folder. Studio shows where, keeps a daily backup and lets you download or restore one.',
  },
  {
    asked: 'Does it need the internet?',
    answer: 'No. Music, sounds and fonts come with the program, and nothing you enter leaves your computer.',
  },
];
