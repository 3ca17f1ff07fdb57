CREATE TABLE `finger_example` (
	`version_id` text NOT NULL,
	`note_id` text NOT NULL,
	`example` text NOT NULL,
	`created_at` text NOT NULL,
	PRIMARY KEY(`version_id`, `note_id`),
	FOREIGN KEY (`version_id`) REFERENCES `version`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `studio` ADD `house_hand` text;