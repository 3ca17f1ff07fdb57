-- What versions were is kept beside, as it was, until carryOver.ts has made edits of it when the database is opened next.
CREATE TABLE `older_version` AS SELECT `id`, `recipe`, `decisions`, `revision` FROM `version`;
--> statement-breakpoint
CREATE TABLE `older_revision` AS SELECT `version_id`, `number`, `recipe`, `decisions`, `created_at` FROM `revision`;
--> statement-breakpoint
DROP TABLE `revision`;
--> statement-breakpoint
CREATE TABLE `revision` (
	`version_id` text NOT NULL,
	`number` integer NOT NULL,
	`name` text NOT NULL,
	`created_at` text NOT NULL,
	PRIMARY KEY(`version_id`, `number`),
	FOREIGN KEY (`version_id`) REFERENCES `version`(`id`) ON UPDATE no action ON DELETE cascade
) WITHOUT ROWID;
--> statement-breakpoint
ALTER TABLE `version` DROP COLUMN `recipe`;
--> statement-breakpoint
ALTER TABLE `version` DROP COLUMN `decisions`;
--> statement-breakpoint
ALTER TABLE `version` DROP COLUMN `revision`;
--> statement-breakpoint
ALTER TABLE `version` ADD `edit` integer DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE `version` ADD `level` integer DEFAULT 2 NOT NULL;
--> statement-breakpoint
ALTER TABLE `version` ADD `style` text DEFAULT 'solo' NOT NULL;
--> statement-breakpoint
ALTER TABLE `version` ADD `key` text;
--> statement-breakpoint
ALTER TABLE `version` ADD `decided` integer DEFAULT 0 NOT NULL;
--> statement-breakpoint
CREATE TABLE `assignment_summary` (
	`assignment_id` text PRIMARY KEY NOT NULL,
	`basis` text NOT NULL,
	`data` text NOT NULL,
	FOREIGN KEY (`assignment_id`) REFERENCES `assignment`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `edit` (
	`version_id` text NOT NULL,
	`number` integer NOT NULL,
	`author` text NOT NULL,
	`patches` text NOT NULL,
	`inverse` text NOT NULL,
	`undoes` integer,
	`redoes` integer,
	`created_at` text NOT NULL,
	PRIMARY KEY(`version_id`, `number`),
	FOREIGN KEY (`version_id`) REFERENCES `version`(`id`) ON UPDATE no action ON DELETE cascade
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `piece_summary` (
	`piece_id` text PRIMARY KEY NOT NULL,
	`basis` text NOT NULL,
	`data` text NOT NULL,
	`report` text NOT NULL,
	FOREIGN KEY (`piece_id`) REFERENCES `piece`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `snapshot` (
	`version_id` text NOT NULL,
	`number` integer NOT NULL,
	`document` text NOT NULL,
	PRIMARY KEY(`version_id`, `number`),
	FOREIGN KEY (`version_id`) REFERENCES `version`(`id`) ON UPDATE no action ON DELETE cascade
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `version_summary` (
	`version_id` text NOT NULL,
	`number` integer NOT NULL,
	`basis` text NOT NULL,
	`data` text NOT NULL,
	PRIMARY KEY(`version_id`, `number`),
	FOREIGN KEY (`version_id`) REFERENCES `version`(`id`) ON UPDATE no action ON DELETE cascade
) WITHOUT ROWID;
--> statement-breakpoint
DROP INDEX `assignment_learner`;
--> statement-breakpoint
ALTER TABLE `assignment` ADD `edit` integer DEFAULT 0 NOT NULL;
--> statement-breakpoint
CREATE INDEX `assignment_learner` ON `assignment` (`learner_id`,`created_at`);
--> statement-breakpoint
DROP INDEX `lesson_learner`;
--> statement-breakpoint
CREATE INDEX `lesson_learner` ON `lesson` (`learner_id`,`date`);
--> statement-breakpoint
DROP INDEX `progress_assignment`;
--> statement-breakpoint
CREATE INDEX `progress_assignment` ON `progress_event` (`assignment_id`,`id`);
--> statement-breakpoint
ALTER TABLE `piece` ADD `source_hash` text DEFAULT '' NOT NULL;
