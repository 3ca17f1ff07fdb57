CREATE TABLE `class` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`piece_id` text,
	`created_at` text NOT NULL,
	`deleted_at` text,
	FOREIGN KEY (`piece_id`) REFERENCES `piece`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE TABLE `class_member` (
	`class_id` text NOT NULL,
	`learner_id` text NOT NULL,
	PRIMARY KEY(`class_id`, `learner_id`),
	FOREIGN KEY (`class_id`) REFERENCES `class`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`learner_id`) REFERENCES `learner`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `holiday` (
	`id` text PRIMARY KEY NOT NULL,
	`from_day` text NOT NULL,
	`to_day` text NOT NULL,
	`name` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `plan_template` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`method` text NOT NULL,
	`steps` text NOT NULL,
	`created_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `slot` (
	`id` text PRIMARY KEY NOT NULL,
	`learner_id` text,
	`group_id` text,
	`weekday` integer NOT NULL,
	`time` text NOT NULL,
	`minutes` integer NOT NULL,
	`from_day` text NOT NULL,
	`until_day` text,
	FOREIGN KEY (`learner_id`) REFERENCES `learner`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`group_id`) REFERENCES `class`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `slot_learner` ON `slot` (`learner_id`);--> statement-breakpoint
CREATE TABLE `slot_change` (
	`slot_id` text NOT NULL,
	`day` text NOT NULL,
	`kind` text NOT NULL,
	`to_day` text,
	`to_time` text,
	PRIMARY KEY(`slot_id`, `day`),
	FOREIGN KEY (`slot_id`) REFERENCES `slot`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `__new_progress_event` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`assignment_id` text NOT NULL,
	`lesson_id` text,
	`chunk` text NOT NULL,
	`step` text NOT NULL,
	`hand` text,
	`counting` integer DEFAULT false NOT NULL,
	`tempo` integer,
	`grade` integer,
	`by` text DEFAULT 'teacher' NOT NULL,
	`withdraws` integer,
	`token` text,
	`day` text DEFAULT '' NOT NULL,
	`undone` integer DEFAULT false NOT NULL,
	`created_at` text NOT NULL,
	FOREIGN KEY (`assignment_id`) REFERENCES `assignment`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`lesson_id`) REFERENCES `lesson`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
INSERT INTO `__new_progress_event`("id", "assignment_id", "chunk", "step", "hand", "counting", "tempo", "withdraws", "day", "undone", "created_at")
SELECT
	e."id",
	e."assignment_id",
	e."chunk",
	-- "faster" and "goal" were two rungs of what is one ladder now.
	CASE WHEN e."step" IN ('faster', 'goal') THEN 'ladder' ELSE e."step" END,
	CASE e."step" WHEN 'hear' THEN NULL WHEN 'right-counting' THEN 'right' WHEN 'right' THEN 'right' WHEN 'left' THEN 'left' ELSE 'both' END,
	e."step" = 'right-counting',
	CASE WHEN e."step" = 'goal' AND e."undone" = 0 THEN max(coalesce(e."tempo", 0), a."goal_tempo") ELSE e."tempo" END,
	-- A step that was taken back is withdrawn by its row.
	CASE WHEN e."undone" THEN (
		SELECT max(d."id") FROM `progress_event` d
		WHERE d."assignment_id" = e."assignment_id" AND d."chunk" = e."chunk" AND d."step" = e."step" AND d."undone" = 0 AND d."id" < e."id"
	) END,
	substr(e."created_at", 1, 10),
	e."undone",
	e."created_at"
FROM `progress_event` e JOIN `assignment` a ON a."id" = e."assignment_id"
WHERE e."undone" = 0 OR EXISTS (
	SELECT 1 FROM `progress_event` d
	WHERE d."assignment_id" = e."assignment_id" AND d."chunk" = e."chunk" AND d."step" = e."step" AND d."undone" = 0 AND d."id" < e."id"
);
--> statement-breakpoint
DROP TABLE `progress_event`;--> statement-breakpoint
ALTER TABLE `__new_progress_event` RENAME TO `progress_event`;--> statement-breakpoint
CREATE UNIQUE INDEX `progress_event_token_unique` ON `progress_event` (`token`);--> statement-breakpoint
CREATE INDEX `progress_assignment` ON `progress_event` (`assignment_id`,`id`);--> statement-breakpoint
CREATE INDEX `progress_lesson` ON `progress_event` (`lesson_id`);--> statement-breakpoint
ALTER TABLE `assignment` ADD `plan` text;--> statement-breakpoint
ALTER TABLE `assignment` ADD `rests_since` text;--> statement-breakpoint
ALTER TABLE `assignment_summary` ADD `history` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `learner` ADD `minutes_a_day` integer DEFAULT 15 NOT NULL;--> statement-breakpoint
ALTER TABLE `learner` ADD `about` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `lesson` ADD `started_at` text;--> statement-breakpoint
ALTER TABLE `lesson` ADD `ended_at` text;--> statement-breakpoint
ALTER TABLE `lesson` ADD `minutes_set` integer;--> statement-breakpoint
ALTER TABLE `lesson` ADD `week` text;--> statement-breakpoint
ALTER TABLE `lesson` ADD `practised` integer;--> statement-breakpoint
UPDATE `lesson` SET `ended_at` = `date` || 'T12:00:00.000Z';--> statement-breakpoint
INSERT INTO `slot` ("id", "learner_id", "weekday", "time", "minutes", "from_day")
SELECT lower(hex(randomblob(8))), "id", "weekday", coalesce("time", '12:00'), 30, "since" FROM `learner` WHERE "weekday" IS NOT NULL;
