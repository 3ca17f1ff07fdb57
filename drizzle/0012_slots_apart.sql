ALTER TABLE `learner` DROP COLUMN `weekday`;--> statement-breakpoint
ALTER TABLE `learner` DROP COLUMN `time`;--> statement-breakpoint
ALTER TABLE `progress_event` DROP COLUMN `undone`;