CREATE TABLE `paper` (
	`of` text PRIMARY KEY NOT NULL,
	`choices` text NOT NULL,
	`created_at` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `studio` ADD `own_line` text DEFAULT '' NOT NULL;