CREATE TABLE `assignment` (
	`id` text PRIMARY KEY NOT NULL,
	`version_id` text NOT NULL,
	`learner_id` text NOT NULL,
	`goal_tempo` integer NOT NULL,
	`goal_date` text,
	`created_at` text NOT NULL,
	FOREIGN KEY (`version_id`) REFERENCES `version`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`learner_id`) REFERENCES `learner`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `assignment_once` ON `assignment` (`version_id`,`learner_id`);--> statement-breakpoint
CREATE INDEX `assignment_learner` ON `assignment` (`learner_id`);--> statement-breakpoint
CREATE TABLE `learner` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`since` text NOT NULL,
	`weekday` integer,
	`time` text,
	`level` integer NOT NULL,
	`reach_right` integer NOT NULL,
	`reach_left` integer NOT NULL,
	`keyboard` integer NOT NULL,
	`has_pedal` integer NOT NULL,
	`voice_low` text,
	`voice_high` text
);
--> statement-breakpoint
CREATE TABLE `lesson` (
	`id` text PRIMARY KEY NOT NULL,
	`learner_id` text NOT NULL,
	`date` text NOT NULL,
	`note` text NOT NULL,
	FOREIGN KEY (`learner_id`) REFERENCES `learner`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `lesson_learner` ON `lesson` (`learner_id`);--> statement-breakpoint
CREATE TABLE `piece` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`composer` text NOT NULL,
	`rights` text NOT NULL,
	`source_name` text NOT NULL,
	`source` blob NOT NULL,
	`created_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `progress_event` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`assignment_id` text NOT NULL,
	`chunk` text NOT NULL,
	`step` text NOT NULL,
	`tempo` integer,
	`undone` integer NOT NULL,
	`created_at` text NOT NULL,
	FOREIGN KEY (`assignment_id`) REFERENCES `assignment`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `progress_assignment` ON `progress_event` (`assignment_id`);--> statement-breakpoint
CREATE TABLE `revision` (
	`version_id` text NOT NULL,
	`number` integer NOT NULL,
	`recipe` text NOT NULL,
	`decisions` text NOT NULL,
	`created_at` text NOT NULL,
	PRIMARY KEY(`version_id`, `number`),
	FOREIGN KEY (`version_id`) REFERENCES `version`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `studio` (
	`id` integer PRIMARY KEY NOT NULL,
	`name` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `version` (
	`id` text PRIMARY KEY NOT NULL,
	`piece_id` text NOT NULL,
	`recipe` text NOT NULL,
	`decisions` text NOT NULL,
	`revision` integer NOT NULL,
	`created_at` text NOT NULL,
	FOREIGN KEY (`piece_id`) REFERENCES `piece`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `version_piece` ON `version` (`piece_id`);