CREATE TABLE `session` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`created_at` text NOT NULL,
	`last_seen` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `submission` (
	`token` text PRIMARY KEY NOT NULL,
	`led` text NOT NULL,
	`created_at` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `learner` ADD `deleted_at` text;--> statement-breakpoint
ALTER TABLE `lesson` ADD `deleted_at` text;--> statement-breakpoint
ALTER TABLE `piece` ADD `deleted_at` text;--> statement-breakpoint
ALTER TABLE `studio` ADD `passphrase` text;--> statement-breakpoint
ALTER TABLE `version` ADD `deleted_at` text;