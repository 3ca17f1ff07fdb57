CREATE TABLE `practice` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`learner_id` text NOT NULL,
	`seconds` integer NOT NULL,
	`token` text NOT NULL,
	`day` text NOT NULL,
	`created_at` text NOT NULL,
	FOREIGN KEY (`learner_id`) REFERENCES `learner`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `practice_token_unique` ON `practice` (`token`);--> statement-breakpoint
CREATE INDEX `practice_learner` ON `practice` (`learner_id`,`day`);--> statement-breakpoint
CREATE TABLE `room` (
	`learner_id` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`pin` text,
	`created_at` text NOT NULL,
	FOREIGN KEY (`learner_id`) REFERENCES `learner`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `room_token_unique` ON `room` (`token`);