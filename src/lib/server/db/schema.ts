/** The tables. Status, next step and due dates are never stored: they are computed from the events. */
import type { Heard } from '$core/lessons/heard';
import type { Locale } from '$core/locale';
import type { PlannedStep, MethodId, Plan } from '$core/lessons/plan';
import type { WeekItem } from '$core/lessons/week';
import { SCHOOL_IDS } from '$core/counting/schools';
import type { Decision } from '$core/decisions/registry';
import type { LevelContract } from '$core/arrange/levels';
import type { StudioPattern } from '$core/arrange/teacherPattern';
import type { SectionStart } from '$core/analysis/sections';
import type { PartChoices } from '$core/players/parts';
import type { Patch } from '$core/edits/edit';
import type { HouseHand, StoredExample } from '$core/fingering/houseHand';
import type { VersionDocument } from '$core/version/document';
import type { Choices } from '$lib/paper/choices';
import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

const id = () => text('id').primaryKey();
const createdAt = () => text('created_at').notNull();
/** When it was put in the trash; null while it is in use. */
const deletedAt = () => text('deleted_at');

export const studio = sqliteTable('studio', {
  id: integer('id').primaryKey(),
  name: text('name').notNull(),
  /** Levels as the teacher has changed them; null for those that ship. */
  levels: text('levels', { mode: 'json' }).$type<readonly LevelContract[]>(),
  /** Left-hand patterns and chord rhythms that the teacher has written; null for none. */
  patterns: text('patterns', { mode: 'json' }).$type<readonly StudioPattern[]>(),
  /** As argon2 keeps it; null where none was set. */
  passphrase: text('passphrase'),
  /** "Europe/Vienna"; null for that of the computer. */
  timeZone: text('time_zone'),
  /** How dates, times and notes are written; null where nothing was chosen. */
  locale: text('locale', { mode: 'json' }).$type<Locale>(),
  /** What the teacher's fingers have taught the proposals; null for nothing yet. */
  houseHand: text('house_hand', { mode: 'json' }).$type<HouseHand>(),
  /** What stands beside the name at the foot of every printed page. */
  ownLine: text('own_line').notNull().default(''),
});

/** What goes on paper, as it was chosen last: of a version, of a class, or in the studio at all ('studio'). */
export const paper = sqliteTable('paper', {
  of: text('of').primaryKey(),
  choices: text('choices', { mode: 'json' }).$type<Choices>().notNull(),
  at: createdAt(),
});

/** Fingers that were decided, each with the notes around it: what the house's hand is learned from. */
export const fingerExample = sqliteTable(
  'finger_example',
  {
    versionId: text('version_id')
      .notNull()
      .references(() => version.id, { onDelete: 'cascade' }),
    noteId: text('note_id').notNull(),
    example: text('example', { mode: 'json' }).$type<StoredExample>().notNull(),
    createdAt: createdAt(),
  },
  (t) => [primaryKey({ columns: [t.versionId, t.noteId] })],
);

/** Browsers that are signed in. */
export const session = sqliteTable('session', {
  /** Of the token in the cookie, which is kept nowhere. */
  tokenHash: text('token_hash').primaryKey(),
  createdAt: createdAt(),
  lastSeen: text('last_seen').notNull(),
});

/** Forms that have been taken, by the token that each carries: one that arrives again makes nothing again. */
export const submission = sqliteTable('submission', {
  token: text('token').primaryKey(),
  /** Where the first one led. */
  led: text('led').notNull(),
  createdAt: createdAt(),
});

export const learner = sqliteTable('learner', {
  id: id(),
  name: text('name').notNull(),
  since: text('since').notNull(),
  /** A level's number; halves too, which SQLite keeps in an integer column as they are. */
  level: integer('level').notNull(),
  /** Widest white-key interval, 7 to 10. */
  reachRight: integer('reach_right').notNull(),
  reachLeft: integer('reach_left').notNull(),
  keyboard: integer('keyboard').notNull(),
  hasPedal: integer('has_pedal', { mode: 'boolean' }).notNull(),
  /** How they count; null as the house does. */
  school: text('school', { enum: SCHOOL_IDS }),
  /** "B3"; null without a voice to sing with. */
  voiceLow: text('voice_low'),
  voiceHigh: text('voice_high'),
  /** What they have for practising. */
  minutesADay: integer('minutes_a_day').notNull().default(15),
  /** What a teacher wants to remember: an age, what they like. */
  about: text('about').notNull().default(''),
  deletedAt: deletedAt(),
});

/** The practice room of a learner: whoever has the link is let in. Withdrawn is deleted. */
export const room = sqliteTable('room', {
  learnerId: text('learner_id')
    .primaryKey()
    .references(() => learner.id, { onDelete: 'cascade' }),
  /** 128 bits, as the link has them. */
  token: text('token').notNull().unique(),
  /** As argon2 keeps it; null where none was set. */
  pin: text('pin'),
  createdAt: createdAt(),
});

/** Append-only: how long was practised in the room, a stretch at a time. */
export const practice = sqliteTable(
  'practice',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    learnerId: text('learner_id')
      .notNull()
      .references(() => learner.id, { onDelete: 'cascade' }),
    seconds: integer('seconds').notNull(),
    /** Named by the page that sent it: what arrives twice is kept once. */
    token: text('token').notNull().unique(),
    /** The studio's day. */
    day: text('day').notNull(),
    createdAt: createdAt(),
  },
  (t) => [index('practice_learner').on(t.learnerId, t.day)],
);

/** Lessons that come every week: of a learner, or of a class. What is otherwise on one day is in slot_change. */
export const slot = sqliteTable(
  'slot',
  {
    id: id(),
    learnerId: text('learner_id').references(() => learner.id, { onDelete: 'cascade' }),
    groupId: text('group_id').references(() => group.id, { onDelete: 'cascade' }),
    /** 1 Monday … 7 Sunday. */
    weekday: integer('weekday').notNull(),
    /** "16:30", by the studio's clock. */
    time: text('time').notNull(),
    minutes: integer('minutes').notNull(),
    from: text('from_day').notNull(),
    until: text('until_day'),
  },
  (t) => [index('slot_learner').on(t.learnerId)],
);

export const slotChange = sqliteTable(
  'slot_change',
  {
    slotId: text('slot_id')
      .notNull()
      .references(() => slot.id, { onDelete: 'cascade' }),
    /** The day on which it would have been. */
    day: text('day').notNull(),
    kind: text('kind', { enum: ['cancelled', 'moved', 'doubled'] }).notNull(),
    toDay: text('to_day'),
    toTime: text('to_time'),
  },
  (t) => [primaryKey({ columns: [t.slotId, t.day] })],
);

export const holiday = sqliteTable('holiday', {
  id: id(),
  from: text('from_day').notNull(),
  to: text('to_day').notNull(),
  name: text('name').notNull(),
});

/** A class: several learners with one piece, each at their own level. */
export const group = sqliteTable('class', {
  id: id(),
  name: text('name').notNull(),
  pieceId: text('piece_id').references(() => piece.id, { onDelete: 'set null' }),
  createdAt: createdAt(),
  deletedAt: deletedAt(),
});

export const groupMember = sqliteTable(
  'class_member',
  {
    groupId: text('class_id')
      .notNull()
      .references(() => group.id, { onDelete: 'cascade' }),
    learnerId: text('learner_id')
      .notNull()
      .references(() => learner.id, { onDelete: 'cascade' }),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.learnerId] })],
);

/** Steps of the teacher's own, for any plan. */
export const planTemplate = sqliteTable('plan_template', {
  id: id(),
  name: text('name').notNull(),
  method: text('method').$type<MethodId>().notNull(),
  steps: text('steps', { mode: 'json' }).$type<readonly PlannedStep[]>().notNull(),
  createdAt: createdAt(),
});

export const piece = sqliteTable('piece', {
  id: id(),
  title: text('title').notNull(),
  composer: text('composer').notNull(),
  rights: text('rights', { enum: ['own work', 'public domain', 'licensed', 'not known'] }).notNull(),
  /** The file exactly as received. It is the truth: the score is read from it whenever it is needed. */
  sourceName: text('source_name').notNull(),
  /** Of the file: names everything that is made of it. */
  sourceHash: text('source_hash').notNull(),
  source: blob('source', { mode: 'buffer' }).notNull(),
  /** What the teacher took the parts of the source to be; null leaves it to the reader's proposal. */
  parts: text('parts', { mode: 'json' }).$type<PartChoices>(),
  /** The form as the teacher has decided it; null leaves it to the source and its analysis. */
  sections: text('sections', { mode: 'json' }).$type<readonly SectionStart[]>(),
  /** What the teacher has put right in the source; the file itself stays as it came. */
  mends: text('mends', { mode: 'json' }).$type<readonly Decision[]>(),
  /** Notes of all parts and measures, as read: how much there is to do. Null where nobody has counted yet. */
  notes: integer('notes'),
  measures: integer('measures'),
  createdAt: createdAt(),
  deletedAt: deletedAt(),
});

/** A piece that somebody asked for. What became of it is not stored: it follows from the piece, its versions and who has them. */
export const pieceRequest = sqliteTable('piece_request', {
  id: id(),
  title: text('title').notNull(),
  /** The student who asked; null where it was somebody else. */
  learnerId: text('learner_id').references(() => learner.id, { onDelete: 'set null' }),
  /** Who asked, where it was no student. */
  askedBy: text('asked_by').notNull().default(''),
  /** The studio's day. */
  day: text('day').notNull(),
  /** A link, or where a recording is, as text. */
  place: text('place').notNull().default(''),
  /** What is known of it: key, who sings it, which part they mean. */
  known: text('known').notNull().default(''),
  /** The piece that it became. */
  pieceId: text('piece_id').references(() => piece.id, { onDelete: 'set null' }),
  /** When it was put aside; null while it is open. */
  closedAt: text('closed_at'),
  createdAt: createdAt(),
});

export const version = sqliteTable(
  'version',
  {
    id: id(),
    pieceId: text('piece_id')
      .notNull()
      .references(() => piece.id, { onDelete: 'cascade' }),
    /** Number of the newest edit; 0 for a version as it was made. */
    edit: integer('edit').notNull(),
    /** From the newest document, for lists: a level's number (halves too), and how the melody is given. */
    level: integer('level').notNull(),
    style: text('style', { enum: ['solo', 'sing-along'] }).notNull(),
    /** The key that was chosen; null for the one that is proposed. */
    key: text('key'),
    decided: integer('decided').notNull(),
    /** What the teacher calls it; null where it goes by its level and key. */
    name: text('name'),
    /** The edit that was signed as ready, and when; null while nobody has. */
    signedEdit: integer('signed_edit'),
    signedAt: text('signed_at'),
    createdAt: createdAt(),
    deletedAt: deletedAt(),
  },
  (t) => [index('version_piece').on(t.pieceId)],
);

/** Append-only: every change of a version, with what takes it back. */
export const edit = sqliteTable(
  'edit',
  {
    versionId: text('version_id')
      .notNull()
      .references(() => version.id, { onDelete: 'cascade' }),
    /** From 1. */
    number: integer('number').notNull(),
    author: text('author').notNull(),
    patches: text('patches', { mode: 'json' }).$type<Patch>().notNull(),
    inverse: text('inverse', { mode: 'json' }).$type<Patch>().notNull(),
    undoes: integer('undoes'),
    redoes: integer('redoes'),
    /** The window it was made in, by a name of its own; null where none is known. */
    window: text('window'),
    createdAt: createdAt(),
  },
  (t) => [primaryKey({ columns: [t.versionId, t.number] })],
);

/** The whole document at some edits: the first one, and one every so often, so that none is far from one. */
export const snapshot = sqliteTable(
  'snapshot',
  {
    versionId: text('version_id')
      .notNull()
      .references(() => version.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    document: text('document', { mode: 'json' }).$type<VersionDocument>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.versionId, t.number] })],
);

/** States of a version that have a name. */
export const revision = sqliteTable(
  'revision',
  {
    versionId: text('version_id')
      .notNull()
      .references(() => version.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    name: text('name').notNull(),
    createdAt: createdAt(),
  },
  (t) => [primaryKey({ columns: [t.versionId, t.number] })],
);

/** A version given to a learner. */
export const assignment = sqliteTable(
  'assignment',
  {
    id: id(),
    versionId: text('version_id')
      .notNull()
      .references(() => version.id, { onDelete: 'cascade' }),
    learnerId: text('learner_id')
      .notNull()
      .references(() => learner.id, { onDelete: 'cascade' }),
    /** The edit of the version that was given: what the learner has, whatever is changed later. */
    edit: integer('edit').notNull(),
    /** Quarter notes per minute. */
    goalTempo: integer('goal_tempo').notNull(),
    goalDate: text('goal_date'),
    /** The plan as the teacher has changed it; null as it is proposed. */
    plan: text('plan', { mode: 'json' }).$type<Plan>(),
    /** Since when it is no longer practised or kept alive; null while it is. */
    restsSince: text('rests_since'),
    createdAt: createdAt(),
  },
  (t) => [
    uniqueIndex('assignment_once').on(t.versionId, t.learnerId),
    index('assignment_learner').on(t.learnerId, t.createdAt),
  ],
);

/** Append-only: what was done and how it went. A row that withdraws another one says nothing else. */
export const progressEvent = sqliteTable(
  'progress_event',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    assignmentId: text('assignment_id')
      .notNull()
      .references(() => assignment.id, { onDelete: 'cascade' }),
    lessonId: text('lesson_id').references(() => lesson.id, { onDelete: 'set null' }),
    /** First and last measure by their ids in the source: "m0..m3". */
    chunk: text('chunk').notNull(),
    step: text('step').notNull(),
    hand: text('hand', { enum: ['right', 'left', 'both'] }),
    /** Counted aloud. */
    counting: integer('counting', { mode: 'boolean' }).notNull().default(false),
    /** Quarter notes per minute; null where none was measured. */
    tempo: integer('tempo'),
    /** 1 to 4; null where none was given. */
    grade: integer('grade'),
    /** "teacher", "learner" or "ear" */
    by: text('by').notNull().default('teacher'),
    /** What the ear heard of it; null where it did not listen. */
    heard: text('heard', { mode: 'json' }).$type<Heard>(),
    withdraws: integer('withdraws'),
    /** Named by the page that sent it: what arrives twice is kept once. */
    token: text('token').unique(),
    /** The studio's day. */
    day: text('day').notNull().default(''),
    createdAt: createdAt(),
  },
  (t) => [index('progress_assignment').on(t.assignmentId, t.id), index('progress_lesson').on(t.lessonId)],
);

/** A lesson: what was said in it, what was set for the week. */
export const lesson = sqliteTable(
  'lesson',
  {
    id: id(),
    learnerId: text('learner_id')
      .notNull()
      .references(() => learner.id, { onDelete: 'cascade' }),
    date: text('date').notNull(),
    note: text('note').notNull(),
    /** Instants; null for what was only written down afterwards, and while it goes on. */
    startedAt: text('started_at'),
    endedAt: text('ended_at'),
    /** What was set for the week: minutes a day, and what to practise. */
    minutesSet: integer('minutes_set'),
    week: text('week', { mode: 'json' }).$type<readonly WeekItem[]>(),
    /** Minutes that the learner practised in the week before, as they say. */
    practised: integer('practised'),
    deletedAt: deletedAt(),
  },
  (t) => [index('lesson_learner').on(t.learnerId, t.date)],
);

/**
 * What lists show of a piece, of a version and of an assignment. Each can be made again from what it is about; `basis` names that
 * by its content, so that a row that no longer holds is known.
 */
export const pieceSummary = sqliteTable('piece_summary', {
  pieceId: text('piece_id')
    .primaryKey()
    .references(() => piece.id, { onDelete: 'cascade' }),
  basis: text('basis').notNull(),
  data: text('data').notNull(),
  /** The whole report of the piece's own page. */
  report: text('report').notNull(),
});

export const versionSummary = sqliteTable(
  'version_summary',
  {
    versionId: text('version_id')
      .notNull()
      .references(() => version.id, { onDelete: 'cascade' }),
    /** The edit that it is about: the newest one, or one that was given. */
    number: integer('number').notNull(),
    basis: text('basis').notNull(),
    data: text('data').notNull(),
  },
  (t) => [primaryKey({ columns: [t.versionId, t.number] })],
);

export const assignmentSummary = sqliteTable('assignment_summary', {
  assignmentId: text('assignment_id')
    .primaryKey()
    .references(() => assignment.id, { onDelete: 'cascade' }),
  basis: text('basis').notNull(),
  data: text('data').notNull(),
  /** What charts show of it. */
  history: text('history').notNull().default(''),
});
