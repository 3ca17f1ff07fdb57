CREATE TABLE `piece_request` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`learner_id` text,
	`asked_by` text DEFAULT '' NOT NULL,
	`day` text NOT NULL,
	`place` text DEFAULT '' NOT NULL,
	`known` text DEFAULT '' NOT NULL,
	`piece_id` text,
	`closed_at` text,
	`created_at` text NOT NULL,
	FOREIGN KEY (`learner_id`) REFERENCES `learner`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`piece_id`) REFERENCES `piece`(`id`) ON UPDATE no action ON DELETE set null
);
